import { type BitsPerSecond, GIGABIT } from '../quantity/rate'

/** What a lead's mark, listing or chip says it is. */
export const CABLE_GRADES = [
  'charge-only',
  'usb2',
  'gen1',
  'gen2',
  'usb4-20',
  'usb4-40',
  'usb4-80',
  'thunderbolt2',
  'thunderbolt3',
  'thunderbolt4',
  'thunderbolt5',
  'dp-hbr2',
  'dp-hbr3',
  'dp40',
  'dp54',
  'dp80',
  'hdmi-10',
  'hdmi-18',
  'hdmi-48',
  'cat5',
  'cat6',
  'cat6a',
  'fibre',
] as const
export type CableGrade = (typeof CABLE_GRADES)[number]

export const CONSTRUCTIONS = ['passive', 'active', 'optical'] as const
export type Construction = (typeof CONSTRUCTIONS)[number]

export type GradeFacts = {
  name: string
  /** The figure on the plug: what somebody pays for. Ranking spends the least of it that does the job. */
  marked: BitsPerSecond
}

export const gradeFacts: Record<CableGrade, GradeFacts> = {
  'charge-only': { name: 'charge-only', marked: 0 },
  usb2: { name: 'USB 2.0', marked: 0.48 * GIGABIT },
  gen1: { name: 'USB 5 Gb/s', marked: 5 * GIGABIT },
  gen2: { name: 'USB 10 Gb/s', marked: 10 * GIGABIT },
  'usb4-20': { name: 'USB4 20 Gb/s', marked: 20 * GIGABIT },
  'usb4-40': { name: 'USB4 40 Gb/s', marked: 40 * GIGABIT },
  'usb4-80': { name: 'USB4 80 Gb/s', marked: 80 * GIGABIT },
  thunderbolt2: { name: 'Thunderbolt 2', marked: 20 * GIGABIT },
  thunderbolt3: { name: 'Thunderbolt 3', marked: 40 * GIGABIT },
  thunderbolt4: { name: 'Thunderbolt 4', marked: 40 * GIGABIT },
  thunderbolt5: { name: 'Thunderbolt 5', marked: 80 * GIGABIT },
  'dp-hbr2': { name: 'DisplayPort HBR2', marked: 21.6 * GIGABIT },
  'dp-hbr3': { name: 'DisplayPort HBR3', marked: 32.4 * GIGABIT },
  dp40: { name: 'DP40', marked: 40 * GIGABIT },
  dp54: { name: 'DP54', marked: 54 * GIGABIT },
  dp80: { name: 'DP80', marked: 80 * GIGABIT },
  'hdmi-10': { name: 'HDMI 10.2 Gb/s', marked: 10.2 * GIGABIT },
  'hdmi-18': { name: 'HDMI 18 Gb/s', marked: 18 * GIGABIT },
  'hdmi-48': { name: 'HDMI 48 Gb/s', marked: 48 * GIGABIT },
  cat5: { name: 'Cat 5', marked: 0.48 * GIGABIT },
  cat6: { name: 'Cat 6', marked: 0.48 * GIGABIT },
  cat6a: { name: 'Cat 6A', marked: 10 * GIGABIT },
  fibre: { name: 'fibre pair', marked: 10 * GIGABIT },
}
