/** A count of pages that a thread writes and another reads. */
export type Pages = Int32Array<SharedArrayBuffer>
export const newPages = (): Pages => new Int32Array(new SharedArrayBuffer(4))
