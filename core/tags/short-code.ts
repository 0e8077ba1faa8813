import type { Abilities } from '../link/abilities'
import { formatLength, type LengthUnit } from '../quantity/length'
import { GIGABIT } from '../quantity/rate'
import type { Construction } from '../standards/grades'

const letters: Record<Construction, string> = { passive: 'P', active: 'A', optical: 'O' }

/**
 * What a cable may be used for, short enough for its tag: "40G 100W 2m A" is 40 Gb/s, 100 W, 2 m, active. A lead without data says "charge",
 * one that is only known to carry pictures names the link.
 */
export function shortCode({ cable, rate, picture, watts, mode, known }: Abilities, unit: LengthUnit = 'm'): string {
  const length = formatLength(cable.length, unit).replaceAll(' ', '')
  const supply = watts > 0 ? `${watts}W` : null
  if (known.hot) return `HOT ${length}`
  const use =
    mode !== null
      ? mode === 'usb2'
        ? '2.0'
        : `${rate / GIGABIT}G`
      : picture
        ? picture.name.replace('DisplayPort ', 'DP ').replace(' x4', '').replace(' Gb/s', 'G')
        : known.grade.value === 'charge-only'
          ? 'charge'
          : 'unknown'
  return [use, supply, length, letters[cable.construction]].filter(Boolean).join(' ')
}
