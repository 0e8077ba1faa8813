import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { fromTemplate, templates } from '../survey/templates'
import { DEVICE_KINDS } from '../vocabulary/device'
import { NEED_KINDS } from '../vocabulary/need'
import { explainNeed } from './explain'
import { countedSize } from './need-text'
import { presetsFor, severalFor, usualToward } from './presets'
import { framesRate, jobRate, PIXEL_FORMATS, soundRate } from './work-out'

describe('a rate worked out from what people know', () => {
  it('is amount over time for a job, in decimal units', () => {
    // 100 GB in 20 minutes: 100e9 x 8 / 1200 s
    expect(jobRate('100 GB in 20 min')).toMatchObject({ ok: true, value: { rate: expect.closeTo(666_666_666.67, 0) } })
    expect(jobRate('1 TB in 1 h')).toMatchObject({ value: { rate: expect.closeTo(8e12 / 3600, 0) } })
    expect(jobRate('800 MB/s')).toBeNull()
    expect(jobRate('100 GB in 0 min')).toMatchObject({ ok: false })
  })
  it('is size x frames x bits for raw frames', () => {
    expect(framesRate('1920x1080@60 yuv422')).toMatchObject({ value: { rate: 1920 * 1080 * 60 * 16 } })
    expect(framesRate('2448 x 2048 @ 75 MONO8')).toMatchObject({ value: { rate: 2448 * 2048 * 75 * 8 } })
    expect(framesRate('1920x1080@60 mono9')).toMatchObject({ ok: false })
    expect(framesRate('4 Gb/s')).toBeNull()
  })
  it('is channels x samples x bits for sound', () => {
    expect(soundRate('8 ch 48 kHz 24 bit')).toMatchObject({ value: { rate: 8 * 48_000 * 24 } })
    expect(soundRate('12 Mb/s')).toBeNull()
  })
  it('grows with each of its figures', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 4000 }),
        fc.integer({ min: 10, max: 4000 }),
        fc.integer({ min: 1, max: 60 }),
        fc.constantFrom(...PIXEL_FORMATS),
        (width, height, frames, format) => {
          const rateOf = (text: string): number => {
            const read = framesRate(text)
            return read?.ok ? read.value.rate : Number.NaN
          }
          const one = rateOf(`${width}x${height}@${frames} ${format}`)
          expect(rateOf(`${width}x${height}@${frames + 1} ${format}`)).toBeGreaterThan(one)
          expect(rateOf(`${width + 1}x${height}@${frames} ${format}`)).toBeGreaterThan(one)
        },
      ),
    )
  })
})

describe('a need explained', () => {
  it('of several alike is so many times the one, and says so', () => {
    for (const { kind, size } of severalFor({ kind: 'dock' })) {
      const { count, size: each } = countedSize(size)
      const [one, all] = [explainNeed(kind, each), explainNeed(kind, each, count)]
      if (!one.ok || !all.ok) throw new Error(size)
      expect(count).toBeGreaterThan(1)
      expect(all.value.rate).toBe((one.value.rate ?? 0) * count)
      expect(all.value.steps.at(-1)?.words).toContain(`${count} x`)
    }
    expect(severalFor({ kind: 'display' })).toEqual([])
  })
  it('of every preset says its figures, with arithmetic that names its source', () => {
    let count = 0
    for (const kind of DEVICE_KINDS)
      for (const preset of presetsFor({ kind })) {
        const read = explainNeed(preset.kind, preset.size)
        expect(read.ok, `${preset.name}: ${preset.size}`).toBe(true)
        if (!read.ok) continue
        count += 1
        expect(read.value.rate ?? read.value.watts).toBeGreaterThan(0)
        expect(read.value.steps.length).toBeGreaterThan(0)
        for (const step of read.value.steps) expect(step.source).toMatch(/\((published|common practice|from memory)\)$/)
      }
    expect(count).toBeGreaterThan(20)
  })
  it('is offered where a port of the device could carry it, and flows the usual way', () => {
    const usual = (name: string) => templates.find((each) => each.name === name) as (typeof templates)[number]
    const offered = (name: string) => presetsFor(fromTemplate(usual(name)))
    // USB 2.0 carries no raw 1080p; a DisplayPort or HDMI plug charges nothing (common practice)
    expect(offered('Webcam').map(({ name }) => name)).toEqual(['a compressed stream, 1080p'])
    expect(offered('4K display, DisplayPort and HDMI').some(({ kind }) => kind === 'power')).toBe(false)
    expect(offered('Type-C display that feeds a laptop').some(({ kind }) => kind === 'power')).toBe(true)
    for (const template of templates) {
      const device = fromTemplate(template)
      for (const { name, kind, toward } of presetsFor(device))
        expect(usualToward(kind, device), `${template.name}: ${name}`).toBe(toward)
    }
  })
  it('of power states the way it flows by what gives it, whatever was asked before', () => {
    expect(usualToward('power', fromTemplate(templates.find(({ kind }) => kind === 'charger') as never))).toBe('host')
    expect(usualToward('power', fromTemplate(templates.find(({ kind }) => kind === 'storage') as never))).toBe('device')
  })
  it('of 4K at 60 Hz is 12.54 Gb/s (VESA CVT 1.2 reduced blanking v2: 522.614 MHz x 24)', () => {
    const read = explainNeed('picture', '3840x2160@60')
    expect(read).toMatchObject({ ok: true, value: { rate: expect.closeTo(522.614e6 * 24, -6) } })
    if (read.ok) expect(read.value.steps.map(({ words }) => words).join(' ')).toContain('522.614 MHz')
  })
  it('never fails on what people type', () => {
    fc.assert(
      fc.property(fc.constantFrom(...NEED_KINDS), fc.string({ maxLength: 60 }), (kind, text) => {
        const read = explainNeed(kind, text)
        if (!read.ok) expect(read.problem).not.toBe('')
      }),
      { numRuns: cases(400) },
    )
  })
})
