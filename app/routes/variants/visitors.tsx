import { Box, Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { data, Link as RouterLink, useNavigation } from 'react-router'
import { seatVisitor } from '../../../core/change/changes/variants'
import { gradeWords } from '../../../core/checks/wording'
import { byId } from '../../../core/plan/lookup'
import { formatWatts } from '../../../core/quantity/watts'
import { type Desk, desksOf, judgeDesk } from '../../../core/variants/visitors'
import { refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { baseOf, change, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { LabelledField, PlainSelect, plainField } from '../../ui/field'
import { Form } from '../../ui/form'
import { GradeMark } from '../../ui/grade'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import type { Route } from './+types/visitors'
import look from './growth.module.css'

/** Says where a visitor sits, or that it sits nowhere any more. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const saved = await change(request, form, params.site, ({ plan }) => {
    const devices = byId(plan.devices)
    const visitor = devices.get(String(form.get('visitor')))
    const seat = String(form.get('host') ?? '')
    const host = devices.get(seat)
    if (!visitor) return refused('visitor', 'choose who comes and goes')
    if (seat !== '' && !host) return refused('host', 'the place it sits at is no longer there')
    return seatVisitor(visitor, baseOf(form), host ?? null)
  })
  if (saved?.outcome === 'saved') return data({ problem: null })
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

/** Who sits there: each desk judged for everyone who may sit at it, with the least able and the hungriest named. */
export default function Visitors({ actionData }: Route.ComponentProps) {
  const { plan, assessed } = useSite()
  const saving = useNavigation().state === 'submitting'
  const desks = useMemo(() => desksOf(plan).map((host) => judgeDesk(assessed, host)), [plan, assessed])
  const computers = plan.devices.filter(({ kind }) => kind === 'computer')
  return (
    <>
      <Heading as="h1" size="xl" mb="1">
        Who sits there
      </Heading>
      <Text mb="4">
        One desk serves many laptops. Say who else sits at it; its runs and needs are judged for each of them.
      </Text>
      {actionData?.problem && <Notice tone="blocked">{actionData.problem}</Notice>}
      {computers.length < 2 ? (
        <Text>It takes two computers on this site: the one a desk is planned for, and one that comes and goes.</Text>
      ) : (
        <Form method="post" className={look.form}>
          <MadeFrom />
          <ComputerField name="visitor" label="Visitor" />
          <ComputerField name="host" label="sits where this one sits" />
          <MainButton loading={saving}>Add the visitor</MainButton>
        </Form>
      )}
      {desks.map((desk) => (
        <DeskTable key={desk.host.id} desk={desk} />
      ))}
    </>
  )
}

/** One of the computers of the site. */
function ComputerField({ name, label }: { name: string; label: string }) {
  const { plan } = useSite()
  return (
    <LabelledField field={plainField(name)} label={label}>
      <PlainSelect id={`field-${name}`} name={name} required defaultValue="">
        <option value="">Choose one</option>
        {plan.devices
          .filter(({ kind }) => kind === 'computer')
          .map((computer) => (
            <option key={computer.id} value={computer.id}>
              {computer.name}
            </option>
          ))}
      </PlainSelect>
    </LabelledField>
  )
}

function DeskTable({ desk }: { desk: Desk }) {
  const { host, sitters, leastAble, hungriest } = desk
  return (
    <Box as="section" mt="6" aria-labelledby={`desk-${host.id}`}>
      <Heading as="h2" size="md" mb="1" id={`desk-${host.id}`}>
        Where {host.name} sits
      </Heading>
      <Text mb="2">
        {leastAble ? `The least able is ${leastAble.name}. ` : 'All who sit there get the same. '}
        {hungriest && `The hungriest is ${hungriest.name}.`}
      </Text>
      <RuledTable
        label={`Who sits where ${host.name} sits`}
        columns={['Who', 'Verdict', 'Takes', 'What is short with it', '']}
        cards
      >
        {sitters.map(({ device, grade, takes, short, noSocket }) => (
          <tr key={device.id}>
            <td>
              <b>{device.name}</b>
            </td>
            <td>
              <GradeMark grade={grade} size="xs" />
            </td>
            <td className={text.mono}>{takes > 0 ? formatWatts(takes) : ''}</td>
            <td>
              {[
                ...noSocket.map((tag) => `${tag} finds no socket on it`),
                ...short.map(({ label, grade: own }) => `${label} (${gradeWords[own]})`),
              ].join(', ') || 'nothing'}
            </td>
            <td>
              {device.id !== host.id && (
                <Form method="post">
                  <MadeFrom />
                  <input type="hidden" name="visitor" value={device.id} />
                  <QuietButton small aria-label={`Remove ${device.name} from there`}>
                    Remove
                  </QuietButton>
                </Form>
              )}
            </td>
          </tr>
        ))}
      </RuledTable>
      <p className={text.small}>
        <RunsAt host={host.id} />
      </p>
    </Box>
  )
}

function RunsAt({ host }: { host: string }) {
  const { plan, index } = useSite()
  const runs = index.runsAt.get(host) ?? []
  return runs.map(({ id, tag }, at) => (
    <span key={id}>
      {at > 0 && ', '}
      <RouterLink to={`/sites/${plan.site.id}/runs/${id}`} className={`${text.link} ${text.mono}`}>
        {tag}
      </RouterLink>
    </span>
  ))
}
