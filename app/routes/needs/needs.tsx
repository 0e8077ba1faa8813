import { Flex, Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { data, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import { copyPlace, MOST_COPIES } from '../../../core/change/changes/copy-place'
import { leadingFinding, type NeedVerdict } from '../../../core/checks/assess'
import { sentence } from '../../../core/checks/sentences'
import { needNames } from '../../../core/checks/wording'
import { formatNeedSize } from '../../../core/needs/need-text'
import { byId } from '../../../core/plan/lookup'
import { devicesByPlace } from '../../../core/plan/site-index'
import type { Need } from '../../../core/vocabulary/need'
import { refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { addressWith, change, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { LabelledField, PlainSelect, plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { GradeMark } from '../../ui/grade'
import { LongTable, type RowProps } from '../../ui/long-table'
import { useSite } from '../../ui/site-context'
import { Undo } from '../../ui/undo'
import { useUnit } from '../../ui/units'
import type { Route } from './+types/needs'
import look from './needs.module.css'

/** Copies a place with all that stands and flows there. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const count = Number(form.get('count'))
  if (!Number.isInteger(count) || count < 1 || count > MOST_COPIES)
    return data({ problem: `Say how many copies: 1 to ${MOST_COPIES}. Nothing was saved.` }, { status: 422 })
  const saved = await change(request, form, params.site, ({ plan }) => {
    const place = byId(plan.places).get(String(form.get('place')))
    return place ? copyPlace(plan, place, count) : refused('place', 'choose the place to copy')
  })
  if (saved?.outcome === 'saved') return redirect(addressWith(`/sites/${params.site}/needs`, { stated: saved.id }))
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

/** What must get through, each with its path through the site and the verdict along it. */
export default function Needs({ actionData }: Route.ComponentProps) {
  const { plan, assessment } = useSite()
  const rows = useMemo(
    () =>
      plan.needs.flatMap((need, at): NeedRow[] => {
        const verdict = assessment.needs[at]
        return verdict ? [{ need, verdict }] : []
      }),
    [plan, assessment],
  )
  return (
    <>
      <Flex align="center" justify="space-between" gap="4" mb="4" wrap="wrap">
        <Heading as="h1" size="xl">
          Needs
        </Heading>
        <Flex gap="4" align="center" wrap="wrap" data-paper="no">
          <RouterLink to={`/sites/${plan.site.id}/visitors`} className={`${text.link} ${text.small}`}>
            Who sits there
          </RouterLink>
          <RouterLink to={`/sites/${plan.site.id}/growth`} className={`${text.link} ${text.small}`}>
            What if it grows
          </RouterLink>
          {plan.needs.length > 0 && (
            <RouterLink to={`/sites/${plan.site.id}/many?list=needs`} className={`${text.link} ${text.small}`}>
              Many at once
            </RouterLink>
          )}
          {plan.devices.length > 1 && (
            <MainButton asChild>
              <RouterLink to={`/sites/${plan.site.id}/needs/new`}>Add needs</RouterLink>
            </MainButton>
          )}
        </Flex>
      </Flex>
      <Done />
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {rows.length === 0 ? (
        <Text>
          No needs yet.{' '}
          <RouterLink to={`/sites/${plan.site.id}/runs/new`} className={text.link}>
            Lay a run
          </RouterLink>
          , then say what must get through it: here, or on the run itself.
        </Text>
      ) : (
        <LongTable
          label="Needs"
          columns={['Need', 'Verdict', 'From and to', 'Its path', 'What is wrong']}
          rows={rows}
          keyOf={keyOf}
        >
          {(row, props) => <Row key={row.need.id} row={row} props={props} />}
        </LongTable>
      )}
      <CopyPlace />
    </>
  )
}

/** A desk with its runs and needs, so many times more. */
function CopyPlace() {
  const { plan } = useSite()
  const [params] = useSearchParams()
  const saving = useNavigation().state === 'submitting'
  const at = devicesByPlace(plan.devices)
  const peopled = plan.places.filter(({ id }) => at.has(id))
  const asked = peopled.find(({ id }) => id === params.get('copy'))
  if (peopled.length === 0) return null
  return (
    <details className={look.copy} id="copy-place" open={asked !== undefined}>
      <summary>Copy a place with all that stands there</summary>
      <Text fontSize="sm" my="2">
        Its devices, their runs and their needs, named after each copy: “Desk 1 laptop” becomes “Desk 2 laptop”. Runs
        that lead out of the place are not copied. The copies’ leads are planned like the originals, to be bought.
      </Text>
      <Form method="post" className={look.copyForm}>
        <MadeFrom />
        <LabelledField field={plainField('place')} label="Place">
          <PlainSelect id="field-place" name="place" defaultValue={asked?.id}>
            {peopled.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </PlainSelect>
        </LabelledField>
        <TextField field={plainField('count', '11')} label="Copies" type="number" min={1} max={MOST_COPIES} />
        <QuietButton loading={saving}>Copy the place</QuietButton>
      </Form>
    </details>
  )
}

/** Says what was done, with a way back. */
function Done() {
  const { plan } = useSite()
  const [params] = useSearchParams()
  const [stated, dropped] = [params.get('stated'), params.get('dropped')]
  const change = stated ?? dropped
  if (!change) return null
  return (
    <Notice tone={stated ? 'clear' : 'note'}>
      <Undo change={change} back={`/sites/${plan.site.id}/needs`}>
        {stated ? 'Done. The new needs are at the end of the list.' : 'The need is deleted.'}
      </Undo>
    </Notice>
  )
}

type NeedRow = { need: Need; verdict: NeedVerdict }

const keyOf = ({ need }: NeedRow): string => need.id

function Row({ row: { need, verdict }, props }: { row: NeedRow; props: RowProps }) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const own = verdict.findings.filter((finding) => finding.needId === need.id)
  const leading = leadingFinding(verdict.grade === 'clear' && own.length > 0 ? own : verdict.findings)
  const nameOf = (id: string) => index.devices.get(id)?.name ?? id
  return (
    <tr {...props}>
      <td className={text.wide}>
        <RouterLink to={`/sites/${plan.site.id}/needs/${need.id}`} className={`${text.link} ${text.strong}`}>
          {need.name ?? needNames[need.kind]}
        </RouterLink>
        <span className={`${text.block} ${text.mono} ${text.tiny}`}>{formatNeedSize(need)}</span>
      </td>
      <td>
        <GradeMark grade={verdict.grade} />
      </td>
      <td className={text.wide}>
        {nameOf(need.from)}
        <span className={`${text.block} ${text.quiet}`}>to {nameOf(need.to)}</span>
      </td>
      <td className={`${text.mono} ${text.whole}`}>
        {verdict.runs.map((id, step) => (
          <span key={id}>
            {step > 0 && ' > '}
            <RouterLink to={`/sites/${plan.site.id}/runs/${id}`} className={`${text.link} ${text.strong}`}>
              {index.runs.get(id)?.tag ?? id}
            </RouterLink>
          </span>
        ))}
        {verdict.runs.length === 0 && 'none'}
      </td>
      <td className={text.widest}>{leading && verdict.grade !== 'clear' ? sentence(leading, unit) : ''}</td>
    </tr>
  )
}
