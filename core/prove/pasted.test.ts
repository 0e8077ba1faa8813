import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { LINK_MODES, type LinkMode } from '../standards/link-modes'
import type { PictureMode } from '../vocabulary/need'
import { PASTED_KINDS, type PastedKind, readPasted } from './pasted'

const mode: PictureMode = { width: 3840, height: 2160, refresh: 60, bits: 8, chroma: '444' }
const spoken: readonly LinkMode[] = ['usb2', 'gen1x1', 'gen2x1', 'usb4-40']
const read = (kind: PastedKind, text: string) => readPasted({ kind, spoken, mode }, text)
const toldBy = (kind: PastedKind, text: string) => {
  const found = read(kind, text)
  return found.ok ? found.value.value : found.problem
}

describe('what screens say, pasted', () => {
  // the forms of commands and of desktop pages: common practice
  it.each([
    [
      'link',
      '/:  Bus 02.Port 1: Dev 1, Class=root_hub, Driver=xhci_hcd/4p, 10000M\n    |__ Port 3: Dev 2, If 0, Class=Mass Storage, Driver=uas, 5000M',
      'gen1x1',
    ],
    ['link', 'Fast disk:\n  Speed: Up to 10 Gb/s\n  Current Available (mA): 900', 'gen2x1'],
    ['link', 'Link speed 40 Gb/s', 'usb4-40'],
    ['link', 'Speed: 480 Mb/s\nMaximum speed: 5 Gb/s', 'usb2'],
    ['picture', '   3840x2160     60.00*+  30.00', 'held'],
    ['picture', 'Resolution: 3840 × 2160 @ 59,94 Hz', 'held'],
    ['picture', 'Desktop resolution 3840 x 2160\nRefresh rate: 60 Hz\nBit depth 8-bit', 'held'],
    ['write', '4000000000 bytes (4.0 GB, 3.7 GiB) copied, 1.5 s, 2.7 GB/s', '2700'],
    ['write', 'Sequential read 3,010 MB/s\nSequential write 412.5 MB/s', '412.5'],
    ['read', 'Sequential read 3,010 MB/s', '3010'],
    ['read', 'Lesen 412,5 MB/s', '412.5'],
    ['read', 'Write: 190 MB/s\nRead: 410 MB/s', '410'],
    ['watts', 'POWER_SUPPLY_VOLTAGE_NOW=20000000\nPOWER_SUPPLY_CURRENT_NOW=4700000', '94'],
    ['watts', 'Wattage (W): 96', '96'],
    ['watts', '19.9 V  3.2 A', '63.68'],
    ['watts', 'Charging at 60W', '60'],
    ['warmth', 'Plug: 43.5 °C', '43.5'],
    ['warmth', '104 °F', '40'],
  ] as const)('%s: %s', (kind, text, value) => {
    expect(toldBy(kind, text)).toBe(value)
  })
  it.each([
    ['link', 'nothing of it', /no speed in it/],
    ['link', 'Disk: 5 Gb/s\nHub: 480 Mb/s', /several speeds/],
    ['picture', '1920x1080 60.00*', /active mode is 1920x1080@60, and the test asks for 3840x2160@60/],
    ['picture', '3840x2160 30.00*', /active mode is 3840x2160@30/],
    ['write', 'Read: 410 MB/s', /no MB\/s of writing/],
    ['read', '410 MB/s\n200 MB/s', /several rates/],
    ['watts', '5 apples', /names no watts/],
    ['warmth', 'warmish', /names no degrees/],
  ] as const)('%s: %s is not guessed at', (kind, text, problem) => {
    expect(toldBy(kind, text)).toMatch(problem)
  })
  it('of any text at all never throws, and says why where it reads nothing', () => {
    fc.assert(
      fc.property(fc.constantFrom(...PASTED_KINDS), fc.string({ maxLength: 400 }), (kind, text) => {
        const found = readPasted({ kind, spoken: LINK_MODES, mode }, text)
        expect(found.ok ? found.value.words.length : found.problem.length).toBeGreaterThan(0)
      }),
    )
  })
})
