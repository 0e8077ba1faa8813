/** What a kept file may be: pictures as they are made harmless, and drawings in lines. */
export const FILE_TYPES = { 'image/webp': 'webp', 'image/svg+xml': 'svg' } as const
export type FileType = keyof typeof FILE_TYPES

/** What is taken in, before it is made smaller and harmless. */
export const LARGEST_UPLOAD_BYTES = 16_000_000
/** What a site keeps at most, all its files together. */
export const MOST_FILE_BYTES = 200_000_000

/** A picture that was made harmless, with its size in pixels. */
export type KeptImage = { type: FileType; bytes: Uint8Array; width: number; height: number }

/** A drawing lies under a floor; a photo is kept with a place. */
export type ImageUse = 'drawing' | 'photo'

/** The plan file within an archive of a site. */
export const PLAN_NAME = 'plan.json'
/** An archive at its largest: a plan, and what a site keeps. */
export const LARGEST_SITE_ARCHIVE_BYTES = 220_000_000

/** Told by the first bytes, as the formats say: ZIP; PNG, JPEG, or what WebP comes in. */
const begins = (bytes: Uint8Array, ...first: number[]): boolean => first.every((byte, at) => bytes[at] === byte)
export const isArchive = (bytes: Uint8Array): boolean => begins(bytes, 0x50, 0x4b)
export const isPixels = (bytes: Uint8Array): boolean =>
  begins(bytes, 0x89, 0x50, 0x4e, 0x47) || begins(bytes, 0xff, 0xd8) || begins(bytes, 0x52, 0x49, 0x46, 0x46)
