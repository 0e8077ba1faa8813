import { randomBytes } from 'node:crypto'
import { deflateSync } from 'node:zlib'
import fc from 'fast-check'
import { imageSize } from 'image-size'
import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { isKept, LARGEST_KEPT_BYTES, readImage } from './image'
import { harmlessSvg } from './svg'

const plain = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#a66a12' } })
const bytes = (buffer: Buffer): Uint8Array => new Uint8Array(buffer)

describe('a picture as it is kept', () => {
  it('has the size that a second library reads of it, whatever it came as', async () => {
    const sizes = fc.tuple(
      fc.integer({ min: 1, max: 400 }),
      fc.integer({ min: 1, max: 400 }),
      fc.constantFrom('png', 'jpeg', 'webp'),
    )
    await fc.assert(
      fc.asyncProperty(sizes, async ([width, height, format]) => {
        const given = bytes(
          await plain(width, height)
            .toFormat(format as 'png')
            .toBuffer(),
        )
        const kept = await readImage(given, 'drawing')
        expect(kept).toMatchObject({ ok: true, value: { type: 'image/webp', width, height } })
        if (kept.ok) expect(imageSize(kept.value.bytes)).toMatchObject({ width, height, type: 'webp' })
      }),
      { numRuns: cases(25) },
    )
  })
  it('comes in smaller where its grain does not pack, until the database takes it in one piece', async () => {
    // noise is what packs least
    const side = 4000
    const noise = randomBytes(side * side * 3)
    const given = await sharp(noise, { raw: { width: side, height: side, channels: 3 } })
      .jpeg({ quality: 85 })
      .toBuffer()
    const kept = await readImage(bytes(given), 'drawing')
    expect(kept.ok && kept.value.bytes.length).toBeLessThanOrEqual(LARGEST_KEPT_BYTES)
    expect(kept.ok && kept.value.width).toBeLessThan(side)
    expect(kept.ok && kept.value.width).toBeGreaterThan(1000)
  }, 60_000)
  it('is no larger than its use needs, and stands as it was taken', async () => {
    const given = bytes(await plain(3000, 1500).jpeg().withMetadata({ orientation: 6 }).toBuffer())
    const photo = await readImage(given, 'photo')
    expect(photo).toMatchObject({ ok: true, value: { width: 800, height: 1600 } })
    if (!photo.ok) return
    expect((await sharp(photo.value.bytes).metadata()).exif).toBeUndefined()
    expect(await isKept(photo.value.bytes)).toMatchObject({ width: 800, height: 1600 })
    // what somebody else made is not what Hallway keeps
    expect(await isKept(given)).toBeNull()
  })
  it('is told by its bytes: text, a page, another program, and what is cut short are refused in words', async () => {
    const whole = await plain(200, 200).png().toBuffer()
    for (const [given, reason] of [
      ['', 'Choose a picture'],
      ['<html><script>alert(1)</script></html>', 'neither'],
      ['%PDF-1.4', 'neither'],
      ['GIF89a', 'neither'],
    ] as const)
      expect(await readImage(new TextEncoder().encode(given), 'photo')).toMatchObject({
        ok: false,
        problem: expect.stringContaining(reason),
      })
    expect(await readImage(bytes(whole.subarray(0, whole.length / 2)), 'photo')).toMatchObject({ ok: false })
    expect(await readImage(new TextEncoder().encode('<svg></svg>'), 'photo')).toMatchObject({ ok: false })
  })
  it('that claims to be a billion pixels is not opened', async () => {
    const chunk = (name: string, data: Buffer): Buffer => {
      const length = Buffer.alloc(4)
      length.writeUInt32BE(data.length)
      return Buffer.concat([length, Buffer.from(name), data, Buffer.alloc(4)])
    }
    const head = Buffer.alloc(13)
    head.writeUInt32BE(40_000, 0)
    head.writeUInt32BE(40_000, 4)
    head.set([8, 2, 0, 0, 0], 8)
    const bomb = Buffer.concat([
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
      chunk('IHDR', head),
      chunk('IDAT', deflateSync(Buffer.alloc(1000))),
      chunk('IEND', Buffer.alloc(0)),
    ])
    expect(await readImage(bytes(bomb), 'drawing')).toMatchObject({ ok: false })
    const large = await sharp({ create: { width: 12_000, height: 11_000, channels: 3, background: '#fff' } })
      .png()
      .toBuffer()
    expect(await readImage(bytes(large), 'drawing')).toMatchObject({
      ok: false,
      problem: expect.stringContaining('million pixels'),
    })
  })
})

describe('a drawing in lines', () => {
  const svg = (inside: string, attributes = ''): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100" height="50" ${attributes}>${inside}</svg>`
  it('keeps its lines, and loses all that acts or fetches', async () => {
    const clean = await harmlessSvg(
      svg(
        `<style>.a{stroke:#111} @import url(http://elsewhere.example/a.css); .b{fill:url(http://elsewhere.example/b)} .c{fill:url(#g)}</style>
         <script>alert(1)</script><foreignObject><iframe src="http://elsewhere.example"></iframe></foreignObject>
         <a href="javascript:alert(2)"><path class="a" d="M0 0h10" onclick="alert(3)"/></a>
         <image href="http://elsewhere.example/x.png" width="1" height="1"/><image xlink:href="file:///etc/passwd"/>
         <use href="other.svg#x"/><use href="#g"/><rect style="fill:url(http://elsewhere.example/c)" width="5" height="5"/>
         <animate attributeName="href" values="javascript:alert(4)"/>`,
        'onload="alert(5)"',
      ),
    )
    expect(clean.ok).toBe(true)
    if (!clean.ok) return
    expect(clean.value).not.toMatch(
      /script|elsewhere|onclick|onload|foreignObject|iframe|passwd|other\.svg|import|animate/i,
    )
    expect(clean.value).toContain('M0 0h10')
    expect(clean.value).toContain('stroke:#111')
    expect(clean.value).toContain('url(#g)')
    // what repeats itself by its own name could be drawn a billion times
    expect(clean.value).not.toContain('<use')
  })
  it('with entities that would fill the memory comes out without them', async () => {
    const lines = Array.from({ length: 20 }, (_, at) => `<!ENTITY e${at + 1} "&e${at};&e${at};&e${at};&e${at};">`)
    const text = `<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY e0 "lol"><!ENTITY x SYSTEM "file:///etc/passwd">${lines.join('')}]>${svg('<text>&e20;&x;</text><path d="M0 0h9"/>')}`
    const clean = await harmlessSvg(text)
    expect(clean.ok && clean.value.length).toBeLessThan(1000)
    const kept = await readImage(new TextEncoder().encode(text), 'drawing')
    expect(kept).toMatchObject({ ok: true, value: { type: 'image/svg+xml', width: 100, height: 50 } })
  })
  it('made harmless once stays as it is, and is what an archive may bring back', async () => {
    const once = await harmlessSvg(
      svg('<g><path d="M1 1h8v8z" fill="none" stroke="#000"/></g>', 'viewBox="0 0 100 50"'),
    )
    if (!once.ok) throw new Error(once.problem)
    expect(await harmlessSvg(once.value)).toEqual(once)
    expect(await isKept(new TextEncoder().encode(once.value))).toMatchObject({ type: 'image/svg+xml' })
    expect(await isKept(new TextEncoder().encode(svg('<script/>')))).toBeNull()
  })
  it('without anything to draw is refused, and so is one that is too large', async () => {
    expect(await harmlessSvg('<p>no</p>')).toMatchObject({ ok: false })
    const large = new TextEncoder().encode(svg('<path d="M0 0h1"/>'.repeat(150_000)))
    expect(await readImage(large, 'drawing')).toMatchObject({ ok: false, problem: expect.stringContaining('2 MB') })
  })
})
