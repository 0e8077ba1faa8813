import { Text } from '@chakra-ui/react'
import type { AreaReach } from '../../../core/headset/area'
import type { Chair, NoiseSource } from '../../../core/placement/floor-noise'
import { formatLength } from '../../../core/quantity/length'
import { atMost } from '../../../core/quantity/limit'
import { decimal } from '../../../core/quantity/parsed'
import text from '../../theme/text.module.css'
import { GradeMark } from '../../ui/grade'
import { useUnit } from '../../ui/units'

/** What is heard at each chair of the floor. */
export function NoisePanel({ noise: { sources, chairs } }: { noise: { sources: NoiseSource[]; chairs: Chair[] } }) {
  const unit = useUnit()
  if (sources.length === 0 && chairs.length === 0) return null
  return (
    <details>
      <summary>Noise: {sources.length === 1 ? 'one box' : `${sources.length} boxes`}</summary>
      <ul className={text.small}>
        {chairs.map(({ place, heard, wanted, move }) => (
          <li key={place.id}>
            {place.name}:{' '}
            {heard === null
              ? 'nothing measured makes noise here'
              : `${decimal(heard, 1)} dB where ${wanted} dB are wanted`}{' '}
            {heard !== null && <GradeMark grade={atMost(heard, wanted) ? 'clear' : 'blocked'} size="xs" />}
            {heard !== null && !atMost(heard, wanted) && (
              <>
                {' '}
                {move
                  ? `${move.device.name} stands ${formatLength(move.from, unit)} away; ${formatLength(move.to, unit)} would be far enough.`
                  : 'Moving one box away is not enough.'}
              </>
            )}
          </li>
        ))}
      </ul>
      <Text fontSize="sm" color="quiet">
        In the open, by the inverse square law; walls make it louder, doors quieter.
      </Text>
    </details>
  )
}

/** How far headset leads reach in their areas. */
export function AreaPanel({ areas }: { areas: readonly AreaReach[] }) {
  const unit = useUnit()
  if (areas.length === 0) return null
  return (
    <details>
      <summary>Headset areas</summary>
      <ul className={text.small}>
        {areas.map(({ run, radius, corners }) => {
          const short = Math.max(...corners.map((corner) => corner.short))
          return (
            <li key={run.id}>
              <span className={text.mono}>{run.tag}</span> reaches {formatLength(radius, unit)} from its port at head
              height
              {short > 0
                ? `; the far corner is ${formatLength(short, unit)} beyond it.`
                : ', every corner of the area.'}{' '}
              <GradeMark grade={short > 0 ? 'blocked' : 'clear'} size="xs" />
            </li>
          )
        })}
      </ul>
    </details>
  )
}
