import type { LengthUnit } from '../core/quantity/length'

const NAME = 'hallway-unit'

/** The unit lengths are shown in first; metres until somebody chooses feet. */
export function readUnit(request: Request): LengthUnit {
  return new RegExp(`(?:^|;\\s*)${NAME}=ft(?:;|$)`).test(request.headers.get('Cookie') ?? '') ? 'ft' : 'm'
}

export const unitCookie = (unit: LengthUnit): string => `${NAME}=${unit}; Path=/; Max-Age=31536000; SameSite=Lax`
