import { parse, serialize } from 'cookie'
import type { LengthUnit } from '../core/quantity/length'

const NAME = 'hallway-unit'
const YEAR_SECONDS = 31_536_000

/** The unit lengths are shown in first; metres until somebody chooses feet. */
export const readUnit = (request: Request): LengthUnit =>
  parse(request.headers.get('Cookie') ?? '')[NAME] === 'ft' ? 'ft' : 'm'

export const unitCookie = (unit: LengthUnit, secure: boolean): string =>
  serialize(NAME, unit, { path: '/', maxAge: YEAR_SECONDS, sameSite: 'lax', secure })
