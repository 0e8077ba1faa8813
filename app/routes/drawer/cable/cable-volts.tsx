import { Box, Heading, Text } from '@chakra-ui/react'
import { countedOf } from '../../../../core/observe/counted'
import type { Observation } from '../../../../core/observe/observation'
import { ALLOWED_DROP, GROUND_WIRES, wireDrop } from '../../../../core/power/wire'
import { decimal } from '../../../../core/quantity/parsed'
import { spreadOf } from '../../../../core/quantity/statistics'
import { citeSource } from '../../../../core/standards/source'
import type { Cable } from '../../../../core/vocabulary/cable'
import { useSite } from '../../../ui/site-context'

const CURRENTS = [3, 5]

/** Volts the cable loses there and back: by its gauge, and as measured. */
export function CableVolts({ cable, observations }: { cable: Cable; observations: readonly Observation[] }) {
  const { awg, length } = cable
  const { practice } = useSite().plan.site
  const measured = countedOf(observations, practice).flatMap((piece) =>
    piece.kind === 'reading' && piece.measure === 'volts lost' && piece.amps > 0 ? [piece.volts / piece.amps] : [],
  )
  const ohms = spreadOf(measured)
  const allowed = ALLOWED_DROP.supply + ALLOWED_DROP.ground
  if (awg === undefined && ohms === null) return null
  const rows = CURRENTS.map((amps) => {
    const wire = awg === undefined ? null : wireDrop({ awg, length, amps, groundWires: GROUND_WIRES })
    return { amps, wire: wire?.ok ? wire.value.total : null, measured: ohms && ohms.median * amps }
  })
  const volts = (value: number | null): string =>
    value === null ? '' : `${decimal(value, 2)} V${value > allowed ? ', too much' : ''}`
  return (
    <Box as="section" aria-labelledby="volts" mt="5">
      <Heading as="h2" size="md" id="volts" mb="1">
        Volts lost
      </Heading>
      {rows.map((row) => (
        <Text key={row.amps} fontSize="sm">
          At {row.amps} A:{' '}
          {[
            row.wire !== null && `${volts(row.wire)} by its wire (AWG ${awg})`,
            row.measured !== null && `${volts(row.measured)} as measured`,
          ]
            .filter(Boolean)
            .join(', ')}
        </Text>
      ))}
      {ohms && (
        <Text fontSize="sm" color="quiet">
          {ohms.count === 1 ? 'One reading' : `${ohms.count} readings`}: {decimal(ohms.median * 1000, 0)} mΩ there and
          back
          {ohms.count > 1 && `, scattering by ${decimal(ohms.deviation * 1000, 0)} mΩ`}.
        </Text>
      )}
      <Text fontSize="sm" color="quiet">
        A cable may lose {decimal(allowed, 2)} V there and back ({citeSource(ALLOWED_DROP.source)}).
      </Text>
    </Box>
  )
}
