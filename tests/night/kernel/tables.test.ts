import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { decodeIdentity } from '../../../core/identity/e-marker'
import { givenWatts } from '../../../core/power/negotiate'
import { LINK_MODES, linkModeFacts } from '../../../core/standards/link-modes'
import {
  DISPLAYPORT_LINKS,
  displayPortLane,
  HDMI_LEVELS,
  hdmiLink,
  laneRate,
} from '../../../core/standards/picture-links'
import { LADDER, PICTURE_SHARE } from '../../../core/tunnel/tunnel'
import { portSchema } from '../../../core/vocabulary/device'
import { type KernelSource, unpackKernel } from './kernel-source'

// The tables of the code, held against what the sources of Linux say of the same.

const FILES = {
  dp: 'drivers/gpu/drm/display/drm_dp_helper.c',
  adapters: 'drivers/gpu/drm/display/drm_dp_dual_mode_helper.c',
  edid: 'drivers/gpu/drm/drm_edid.c',
  tunnel: 'drivers/thunderbolt/tunnel.c',
  tunnels: 'drivers/thunderbolt/tb.c',
  hub: 'drivers/usb/core/hub.c',
  chips: 'include/linux/usb/pd_vdo.h',
  pictures: 'include/linux/usb/typec_dp.h',
} as const
let kernel: KernelSource
beforeAll(() => {
  kernel = unpackKernel('linux-source-6.12', Object.values(FILES))
})
afterAll(() => kernel.remove())

const text = (file: keyof typeof FILES): string => kernel.text(FILES[file])
/** A figure after some words of a source file. */
function figure(file: keyof typeof FILES, form: RegExp): number {
  const found = form.exec(text(file))?.[1]
  if (found === undefined) throw new Error(`${FILES[file]} has no ${form}`)
  return Number(found)
}
/** A function of a source file, to its end. */
function body(file: keyof typeof FILES, name: string): string {
  const whole = text(file)
  const at = whole.search(new RegExp(`^[^\\n;]*\\b${name}\\([^;]*?\\)\\s*\\{`, 'm'))
  if (at < 0) throw new Error(`${FILES[file]} has no ${name}`)
  return whole.slice(at, whole.indexOf('\n}', at))
}

describe('DisplayPort', () => {
  it('leaves of a link what the kernel says of its coding', () => {
    const [fast, slow] = [...body('dp', 'drm_dp_bw_channel_coding_efficiency').matchAll(/return (\d+);/g)].map(
      ([, ppm]) => Number(ppm) / 1e6,
    )
    for (const link of DISPLAYPORT_LINKS)
      expect(displayPortLane[link].payload / laneRate(link), link).toBeCloseTo(
        (link.startsWith('uhbr') ? fast : slow) as number,
        9,
      )
  })
  it('comes up in a tunnel at the steps that the kernel tries, and leaves it a tenth', () => {
    const steps = [...body('tunnel', 'tb_dp_reduce_bandwidth').matchAll(/\{ (\d+), (\d) \}/g)].map(
      ([, rate, lanes]) => (Number(rate) * 1e6 * Number(lanes) * 8) / 10,
    )
    expect(steps).toHaveLength(12)
    const ours = LADDER.filter(({ link }) => !link.startsWith('uhbr')).map(({ payload }) => payload)
    expect(ours.map(Math.round)).toEqual(steps.map(Math.round))
    // ten per cent of guard band, as tb_available_bandwidth takes it
    expect(1 - PICTURE_SHARE).toBeCloseTo(1 / figure('tunnels', /max_down = down_bw - down_bw \/ (\d+);/), 9)
  })
  it('goes over a type-C lead in the three classes of signalling that leads are marked with', () => {
    const classes = [...text('pictures').matchAll(/DP_CONF_SIGNALLING_(U?HBR\d+)\s/g)].map(([, name = '']) =>
      name.toLowerCase(),
    )
    expect(classes).toEqual(['hbr3', 'uhbr10', 'uhbr20'])
  })
})

describe('HDMI', () => {
  it('carries 165 million characters a second over the first adapters, and 340 where it says no more', () => {
    expect(hdmiLink['tmds-4.95'].payload / 24 / 1e3).toBe(figure('adapters', /return (\d{4,});/))
    expect(hdmiLink['tmds-10.2'].payload / 24 / 1e3).toBe(figure('edid', /max_tmds_clock > (\d+)\)/))
  })
  it('has fixed rate links of so many lanes at such rates', () => {
    const rates = [
      ...body('edid', 'drm_get_max_frl_rate').matchAll(/max_lanes = (\d+);\s+\*max_rate_per_lane = (\d+)/g),
    ]
      .map(([, lanes, rate]) => Number(lanes) * Number(rate))
      .filter((rate) => rate > 0)
    const ours = HDMI_LEVELS.filter((level) => level.startsWith('frl-')).map((level) => Number(level.slice(4)))
    expect(ours).toEqual(rates)
  })
})

describe('USB', () => {
  it('has the lanes and generations that the kernel tells apart', () => {
    const told = new Set(
      [...text('hub').matchAll(/Gen (\d)x(\d)/g)].map(([, generation, lanes]) => `gen${generation}x${lanes}`),
    )
    for (const mode of LINK_MODES.filter((each) => /^gen(?!1x1)/.test(each)))
      expect(told, linkModeFacts[mode].name).toContain(mode)
  })
  it('promises five units of current on a USB 2.0 port and six on a faster one', () => {
    const [fast, slow] = [...text('hub').matchAll(/unit_load = (\d+);/g)].map(
      ([, milliamps]) => Number(milliamps) / 1000,
    )
    const port = (usb: 'usb2' | 'gen1x1') =>
      givenWatts(portSchema.parse({ id: 'p', name: 'p', connector: 'type-a', role: 'host', usb }))
    expect(port('usb2')).toBeCloseTo(5 * 5 * (slow as number), 9)
    expect(port('gen1x1')).toBeCloseTo(5 * 6 * (fast as number), 9)
  })
})

describe('the words of a cable’s chip', () => {
  /** The value of a name in the kernel's header. */
  const told = (name: string): number => figure('chips', new RegExp(`#define ${name}\\s+(\\d+)`))
  const passive = (bits: number) =>
    decodeIdentity({
      idHeader: ((told('IDH_PTYPE_PCABLE') << 27) | 0x1234) >>> 0,
      certStat: 0,
      product: 0,
      vdo1: bits >>> 0,
      vdo2: null,
      revision: 3,
    }).facts
  it('stand at the bits that the kernel’s comments name', () => {
    const comments = text('chips')
    for (const line of [
      '<16:13> :: cable latency',
      '<10:9>  :: Maximum Vbus voltage',
      '<6:5>   :: Vbus current handling capability',
      '<2:0>   :: USB highest speed',
    ])
      expect(comments).toContain(line)
  })
  it('mean what the kernel calls them: length, current and volts', () => {
    for (const metres of [1, 2, 3, 4, 5, 6, 7])
      expect(passive(told(`CABLE_LATENCY_${metres}M`) << 13).length).toMatchObject({ upTo: metres })
    expect(passive(told('CABLE_CURR_3A') << 5).amps).toBe(3)
    expect(passive(told('CABLE_CURR_5A') << 5).amps).toBe(5)
    expect(passive(told('CABLE_MAX_VBUS_50V') << 9).volts).toBe(50)
    expect(passive(told('CABLE_MAX_VBUS_20V') << 9).volts).toBe(20)
  })
})
