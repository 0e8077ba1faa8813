import { useMemo, useState } from 'react'
import { Link as RouterLink, useNavigation, useSearchParams } from 'react-router'
import { presetsFor } from '../../../core/needs/presets'
import type { Device } from '../../../core/vocabulary/device'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { QuietButton } from '../../ui/controls'
import { Labelled, PlainSelect } from '../../ui/field'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import { NeedLine } from '../needs/need-line'
import needsLook from '../needs/needs.module.css'
import look from './survey.module.css'

/** Asks, of devices that were just added, what must get through to them and from which computer. */
export function NeedsOfNew() {
  const { plan, index } = useSite()
  const [params] = useSearchParams()
  const saving = useNavigation().state === 'submitting'
  const added = params.get('added')
  const asked = params.get('new')
  const devices = useMemo(
    () => (asked ?? '').split(' ').flatMap((id) => index.devices.get(id) ?? []),
    [asked, index.devices],
  )
  const wanting = devices.filter((device) => device.kind !== 'computer' && presetsFor(device).length > 0)
  const hosts = plan.devices.filter(({ kind }) => kind === 'computer')
  const usual = usualHost(hosts, wanting)
  const [chosen, setChosen] = useState('')
  const host = hosts.find(({ id }) => id === chosen) ?? usual
  if (!added || !host || wanting.length === 0) return null
  return (
    <details className={look.add} open>
      <summary>What must get through to {wanting.length === 1 ? wanting[0]?.name : 'them'}?</summary>
      <Form method="post" action={`/sites/${plan.site.id}/needs/new`}>
        <MadeFrom />
        <input type="hidden" name="back" value={`/sites/${plan.site.id}/survey`} />
        <Labelled label="From the computer" display="block" maxW="320px" mb="2">
          <PlainSelect name="host" value={host.id} onChange={({ currentTarget }) => setChosen(currentTarget.value)}>
            {hosts.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </PlainSelect>
        </Labelled>
        <ul className={needsLook.suggested}>
          {wanting.map((device) => (
            <NeedLine key={`${host.id} ${device.id}`} host={host} device={device} wrong={undefined} />
          ))}
        </ul>
        <div className={look.addRow}>
          <QuietButton loading={saving}>Add these needs</QuietButton>
          <span className={`${text.small} ${text.quiet}`}>
            Their path is found as soon as runs join them:{' '}
            <RouterLink to={`/sites/${plan.site.id}/runs/new`} className={text.link}>
              New run
            </RouterLink>
          </span>
        </div>
      </Form>
    </details>
  )
}

/** The computer at the same place, else the one that was added last. */
const usualHost = (hosts: readonly Device[], added: readonly Device[]): Device | undefined => {
  const places = new Set(added.flatMap(({ place }) => place ?? []))
  return hosts.findLast(({ place }) => place !== undefined && places.has(place)) ?? hosts.at(-1)
}
