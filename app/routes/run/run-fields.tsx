import { Box, Flex, Grid, Text } from '@chakra-ui/react'
import { type FieldMetadata, type FormMetadata, getFormProps } from '@conform-to/react'
import { type FormEvent, type RefObject, useEffect, useRef, useState } from 'react'
import { useNavigation } from 'react-router'
import { needNames } from '../../../core/checks/wording'
import { formatNeedSize, needExamples } from '../../../core/needs/need-text'
import { presetsFor } from '../../../core/needs/presets'
import type { Plan } from '../../../core/plan/plan'
import { formatLength } from '../../../core/quantity/length'
import { decimal } from '../../../core/quantity/parsed'
import { wayOf } from '../../../core/route/follow'
import { leadFor, legsExample, parseRoute } from '../../../core/route/legs'
import { NEED_KINDS, type Need, type NeedKind } from '../../../core/vocabulary/need'
import type { PortAddress, Run } from '../../../core/vocabulary/run'
import text from '../../theme/text.module.css'
import { ChangeId } from '../../ui/change-fields'
import { MainButton, QuietButton } from '../../ui/controls'
import { CheckField, SelectField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { addressFrom } from '../../ui/form-text'
import { takesLength } from '../../ui/keep-typed-unit'
import { PortField } from '../../ui/port-field'
import { PriorityField } from '../../ui/priority-field'
import { useSite } from '../../ui/site-context'
import { Length, useUnit } from '../../ui/units'
import { noWayWords, RouteWords } from '../floors/route-words'
import { NeedFigures } from '../needs/need-size'
import { LeadField } from './choices'
import look from './run-fields.module.css'
import type { RunFormTexts } from './run-form'

type Fields = { [Name in keyof RunFormTexts]-?: FieldMetadata<RunFormTexts[Name]> }

type Props = {
  form: FormMetadata<RunFormTexts>
  fields: Fields
  formRef: RefObject<HTMLFormElement | null>
  plan: Plan
  before: Run | null
  base: number | null
  /** Needs between other devices whose way leads over this run. */
  passing: readonly Need[]
  onChange: () => void
  onType: (() => void) | undefined
}

/** The form of a run. Every control is the browser's own, so it works before scripts load; `onChange` lets the verdict follow. */
export function RunFields({ form, fields, formRef, plan, before, base, passing, onChange, onType }: Props) {
  const unit = useUnit()
  const saving = useNavigation().state === 'submitting'
  const leads = fields.leads.getFieldList()
  const needs = fields.needs.getFieldList()
  const shape = `${leads.length} ${needs.length}`
  // a line added or taken away changes the run as much as a line typed
  const known = useRef(shape)
  // biome-ignore lint/correctness/useExhaustiveDependencies: the number of lines is the reason to read again
  useEffect(() => {
    if (known.current === shape) return
    known.current = shape
    onType?.()
    onChange()
  }, [shape])
  const typed = (event: FormEvent<HTMLFormElement>) => {
    // whoever types a length wants that one
    const { target, currentTarget } = event as unknown as { target: HTMLInputElement; currentTarget: HTMLFormElement }
    const follows = currentTarget.elements.namedItem(fields.follows.name)
    if (target.name === fields.length.name && follows instanceof HTMLInputElement && follows.checked) follows.click()
    onType?.()
    onChange()
  }
  return (
    <Form method="post" {...getFormProps(form)} ref={formRef} onInput={typed} aria-label="Run">
      {base !== null && <input type="hidden" name="base" value={base} />}
      <input type="hidden" name={fields.had.name} defaultValue={fields.had.initialValue ?? ''} />
      <ChangeId />
      <Flex direction="column" gap="3">
        <Grid templateColumns="1fr 1.4fr" gap="3">
          <TextField field={fields.tag} label="Tag" required mono />
          <TextField
            field={fields.length}
            {...takesLength}
            label="Route length"
            hint={unit === 'm' ? `like 4.2 m, 14 ft, or ${legsExample}` : `like 14 ft, 13' 9", or ${legsExample}`}
            required
          />
        </Grid>
        <RouteSum fields={fields} />
        <PortField field={fields.from} label="Host port" required />
        {leads.map((lead, at) => (
          <Flex key={lead.key ?? lead.id} gap="2" align="end">
            <Box flex="1">
              <LeadField field={lead} label={at === 0 ? 'Cable' : `Cable ${at + 1}, in series`} run={before} />
            </Box>
            {at > 0 && (
              <QuietButton
                {...form.remove.getButtonProps({ name: fields.leads.name, index: at })}
                aria-label={`Remove cable ${at + 1}`}
              >
                Take out
              </QuietButton>
            )}
          </Flex>
        ))}
        <Box>
          <QuietButton small {...form.insert.getButtonProps({ name: fields.leads.name, defaultValue: '' })}>
            Add an extension or adapter in series
          </QuietButton>
        </Box>
        <PortField field={fields.to} label="Device port" required />
        <Box as="fieldset" border="1px solid" borderColor="line" borderRadius="2px" px="3" pb="3" pt="1">
          <Box as="legend" fontWeight="700" px="1">
            What must get through between these two
          </Box>
          {needs.length === 0 && passing.length === 0 && (
            <Text fontSize="sm" color="quiet" mb="2">
              No needs yet. Add needs behind a dock between the devices themselves; they cross this run by themselves.
            </Text>
          )}
          {passing.length > 0 && <Passing needs={passing} plan={plan} />}
          {needs.map((need, at) => (
            <NeedLine key={need.key ?? need.id} need={need as never} label={`Need ${at + 1}`}>
              <QuietButton
                {...form.remove.getButtonProps({ name: fields.needs.name, index: at })}
                aria-label={`Remove need ${at + 1}`}
              >
                Take out
              </QuietButton>
            </NeedLine>
          ))}
          <QuietButton
            small
            {...form.insert.getButtonProps({
              name: fields.needs.name,
              defaultValue: { kind: 'picture', way: 'down', size: '' },
            })}
          >
            Add a need
          </QuietButton>
          <Usual form={form} fields={fields} />
        </Box>
        <TextField field={fields.note} label="Note" />
        <Box>
          <MainButton loading={saving}>{before ? 'Save the run' : 'Lay the run'}</MainButton>
        </Box>
      </Flex>
    </Form>
  )
}

/** What the route comes to: its legs as a sum, and the lead that it asks for with what this site keeps to spare. */
function RouteSum({ fields }: { fields: Fields }) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const follows = fields.follows.value === 'on'
  const ends = [fields.from.value, fields.to.value].map((text) => addressFrom(text ?? ''))
  const [from, to] = ends as [PortAddress, PortAddress]
  const known = ends.every(({ device }) => index.devices.has(device))
  const way = known && plan.floors.length > 0 ? wayOf(plan, { from, to }) : null
  const read = parseRoute(fields.length.value ?? '', unit)
  const over = follows && way && !('why' in way) ? way : null
  const route = over ?? (read.ok ? read.value : null)
  const { slack, loop } = plan.policy
  return (
    <Box fontSize="sm">
      {route && (
        <Text role="status">
          {route.legs && route.legs.length > 0 && (
            <>
              <RouteWords legs={route.legs} /> ={' '}
            </>
          )}
          <Length metres={route.length} />; with {decimal(slack * 100, 0)} % slack
          {loop > 0 && ` and ${formatLength(loop, unit)} of loop at each end`} a lead of{' '}
          <Length metres={leadFor(route.length, plan.policy)} />.
        </Text>
      )}
      {plan.floors.length > 0 && (
        <>
          <CheckField
            field={fields.follows}
            label="It takes the shortest route over the pathways, and changes with them"
          />
          {way && 'why' in way && follows && <Text color="quiet">{noWayWords(way, index)}</Text>}
          {way && !('why' in way) && !follows && (
            <Text color="quiet">
              That route is <Length metres={way.length} /> long.
            </Text>
          )}
        </>
      )}
    </Box>
  )
}

/** What is often wanted between the two ends: a press adds it as a need. */
function Usual({ form, fields }: Pick<Props, 'form' | 'fields'>) {
  const { index } = useSite()
  // it stays as it is while needs are added
  const [open] = useState(fields.needs.getFieldList().length === 0)
  const usual = ([fields.to, fields.from] as const).flatMap(({ value }, at) => {
    const device = index.devices.get(addressFrom(value ?? '').device)
    const inward = at === 0 ? 'device' : 'host'
    return (device ? presetsFor(device) : []).map((preset) => ({
      ...preset,
      way: preset.toward === inward ? 'down' : 'up',
    }))
  })
  if (usual.length === 0) return null
  return (
    <details open={open} className={look.usual}>
      <summary>Often wanted between these two</summary>
      <div>
        {usual.map(({ name, kind, size, way }) => (
          <QuietButton
            key={`${kind} ${name} ${way}`}
            small
            aria-label={`Add ${name}`}
            {...form.insert.getButtonProps({ name: fields.needs.name, defaultValue: { kind, way, size } })}
          >
            {name}
          </QuietButton>
        ))}
      </div>
    </details>
  )
}

function Passing({ needs, plan }: { needs: readonly Need[]; plan: Plan }) {
  const nameOf = (id: string) => plan.devices.find((device) => device.id === id)?.name ?? id
  return (
    <Box fontSize="sm" mb="3">
      <Text color="quiet">Needs from elsewhere that cross it:</Text>
      <Box as="ul" pl="4" listStyleType="disc">
        {needs.map((need) => (
          <li key={need.id}>
            {need.name ?? needNames[need.kind]}{' '}
            <span className={`${text.mono} ${text.tiny}`}>{formatNeedSize(need)}</span>, {nameOf(need.from)} to{' '}
            {nameOf(need.to)}
          </li>
        ))}
      </Box>
    </Box>
  )
}

function NeedLine({
  need,
  label,
  children,
}: {
  need: FieldMetadata<RunFormTexts['needs'][number]>
  label: string
  children: React.ReactNode
}) {
  const parts = need.getFieldset() as { [Name in 'id' | 'kind' | 'way' | 'size' | 'priority']: FieldMetadata<string> }
  const kind = (parts.kind.value ?? 'picture') as NeedKind
  return (
    <Box role="group" aria-label={label} mb="3">
      <input type="hidden" name={parts.id.name} defaultValue={parts.id.initialValue ?? ''} />
      <Flex gap="2" align="start">
        <Box w="112px" flex="none">
          <SelectField field={parts.kind} label="Kind">
            {NEED_KINDS.map((name) => (
              <option key={name} value={name}>
                {needNames[name]}
              </option>
            ))}
          </SelectField>
        </Box>
        <Box flex="1">
          <TextField field={parts.size} label="How much" placeholder={needExamples[kind] ?? ''} mono required />
          {!parts.size.errors && <NeedFigures kind={kind} size={parts.size.value ?? ''} />}
        </Box>
      </Flex>
      <Flex gap="2" align="end" mt="2">
        <Box flex="1">
          <SelectField field={parts.way} label="Flows">
            <option value="down">to the device end</option>
            <option value="up">to the host end</option>
          </SelectField>
        </Box>
        <Box w="104px" flex="none">
          <PriorityField field={parts.priority} label="Served" />
        </Box>
        {children}
      </Flex>
    </Box>
  )
}
