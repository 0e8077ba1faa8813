import type { LengthUnit } from '../../core/quantity/length'
import { withTypedUnit } from '../../core/quantity/typed-unit'
import { typeInto } from './type-into'

/** Marks a field that takes lengths, for `keepTypedUnit`. */
export const takesLength = { 'data-length': '' } as const

/** Puts the unit behind what was typed of lengths on this page, before bare figures become another unit's. */
export function keepTypedUnit(unit: LengthUnit): void {
  for (const field of document.querySelectorAll<HTMLInputElement>('input[data-length]')) {
    const said = withTypedUnit(field.value, unit)
    if (said !== field.value) typeInto(field, said)
  }
}
