import { Box, Text } from '@chakra-ui/react'
import { parseWithZod } from '@conform-to/zod/v4'
import { type RefObject, useCallback, useEffect, useState } from 'react'
import { observed } from '../../../../core/change/changes/observations'
import { cautionSentence, cautionsOf } from '../../../../core/drawer/cable-cautions'
import { type Abilities, abilitiesOf } from '../../../../core/link/abilities'
import { indexPlan, type SiteIndex } from '../../../../core/plan/site-index'
import { shortCode } from '../../../../core/tags/short-code'
import type { Cable } from '../../../../core/vocabulary/cable'
import { useSite } from '../../../ui/site-context'
import { useUnit } from '../../../ui/units'
import { UseDoor } from '../../../ui/use-door'
import { cableFormSchema, readCable } from './cable-form'
import { DoorList } from './door-list'

export type DraftCable = { index: SiteIndex; cable: Cable; abilities: Abilities }

/** The cable as the form would make it, judged as it is typed. While the form cannot be read the last readable state stays. */
export function useDraftCable(form: RefObject<HTMLFormElement | null>, like: Cable | null) {
  const { plan } = useSite()
  const unit = useUnit()
  const [draft, setDraft] = useState<DraftCable | null>(null)
  const read = useCallback(() => {
    if (!form.current) return
    const submission = parseWithZod(new FormData(form.current), { schema: cableFormSchema(unit) })
    if (submission.status !== 'success') return
    const { cable, marks } = readCable(submission.value, null, undefined, 'draft')
    const witness = { at: '2000-01-01T00:00:00.000Z', by: undefined, newId: () => 'draft' }
    const index = indexPlan({
      ...plan,
      cables: [cable],
      runs: [],
      observations: observed(marks, { cable: cable.id }, witness),
    })
    setDraft({ index, cable, abilities: abilitiesOf(index, cable) })
  }, [form, plan, unit])
  // biome-ignore lint/correctness/useExhaustiveDependencies: another cable to start from fills the form anew
  useEffect(read, [read, like?.id])
  return { draft, read }
}

/** What the cable on the bench is good for, as far as its mark and length tell. */
export function WhatItPromises({ draft }: { draft: DraftCable | null }) {
  const unit = useUnit()
  if (!draft)
    return (
      <Text color="quiet" fontSize="sm">
        Choose both connectors and give the length: what the mark promises at that length appears here.
      </Text>
    )
  const { index, cable, abilities } = draft
  return (
    <>
      <Box fontSize="lg">
        <UseDoor abilities={abilities} size={30} />
      </Box>
      <Box fontFamily="mono" fontSize="sm" color="quiet" mb="3">
        on its tag: {shortCode(abilities, unit)}
      </Box>
      <DoorList index={index} cable={cable} brief />
      {[...cautionsOf(cable, abilities.known)].map((caution) => (
        <Text key={caution.code} fontSize="sm" mt="2" pl="2" borderLeft="3px solid" borderColor="tight">
          {cautionSentence(caution)}
        </Text>
      ))}
    </>
  )
}
