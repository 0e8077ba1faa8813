declare module 'wawoff2' {
  /** Unpacks a font of the web (WOFF2) into one that any program reads. */
  export function decompress(packed: Uint8Array): Promise<Uint8Array>
}
