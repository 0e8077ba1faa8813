import { Flex, Heading, Text } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { data, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import {
  changeMany,
  MANY_ACTIONS,
  MANY_LISTS,
  type ManyAction,
  type ManyList,
  MOST_MANY,
} from '../../../core/change/changes/many'
import { calledIn } from '../../../core/change/differences'
import { previewOf } from '../../../core/change/preview'
import { readForm } from '../../read-form.server'
import { addressWith, baseOf, change, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { Labelled, PlainInput, PlainSelect } from '../../ui/field'
import { Form } from '../../ui/form'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { Undo } from '../../ui/undo'
import { useUnit } from '../../ui/units'
import { readUnit } from '../../unit-cookie'
import type { Route } from './+types/many'
import look from './many.module.css'
import { ManyFields } from './many-fields'
import { manyAsked, readManyAction } from './many-form'

export const meta: Route.MetaFunction = () => [{ title: 'Many at once · Hallway' }]

/** Changes all that was ticked, as one change. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const { list, ids, what } = manyAsked(form)
  const read = readManyAction(form, what, readUnit(request))
  if (!read.ok) return data({ problem: `${read.problem} Nothing was saved.` }, { status: 422 })
  if (ids.size === 0) return data({ problem: 'Tick at least one. Nothing was saved.' }, { status: 422 })
  const saved = await change(request, form, params.site, ({ plan }) =>
    changeMany(plan, baseOf(form), list, ids, read.value),
  )
  if (saved?.outcome === 'saved') return redirect(addressWith(`/sites/${params.site}/many`, { list, did: saved.id }))
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

const listNames: Record<ManyList, string> = { runs: 'Runs', devices: 'Devices', needs: 'Needs', places: 'Places' }
const actionNames: Record<ManyAction['do'], string> = {
  length: 'Set the route length',
  move: 'Move them to a place',
  size: 'Set the size',
  priority: 'Set who is served first',
  shift: 'Move them on the floor',
  mains: 'Set the mains',
  rename: 'Find and replace in their names',
  note: 'Write a note',
  delete: 'Delete them',
}

/** Many things of one list: tick them, say what is to become of them, see what changes, save it as one change. */
export default function Many({ actionData }: Route.ComponentProps) {
  const { plan, place } = useSite()
  const unit = useUnit()
  const [params, setParams] = useSearchParams()
  const saving = useNavigation().state === 'submitting'
  const did = params.get('did')
  // what is typed and ticked is kept here; an address says where to begin, and is all there is without scripts
  const [typed, setTyped] = useState<FormData | URLSearchParams>(params)
  const [base, setBase] = useState({ list: params.get('list'), did })
  if (base.list !== params.get('list') || base.did !== did) {
    setBase({ list: params.get('list'), did })
    setTyped(params)
  }
  const [filter, setFilter] = useState('')
  const { list, ids, what } = manyAsked(typed)
  const things = plan[list] as readonly { id: string }[]
  const rows = useMemo(
    () => things.map((thing) => ({ id: thing.id, name: calledIn(plan, list, thing as never) ?? thing.id })),
    [plan, things, list],
  )
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean)
  const shown = rows.filter(({ name }) => words.every((word) => name.toLowerCase().includes(word)))
  const read = readManyAction(typed, what, unit)
  const made = read.ok && ids.size > 0 ? changeMany(plan, place, list, ids, read.value) : null
  const faults = made && 'outcome' in made ? made.faults : []
  const lines = made && !('outcome' in made) ? previewOf(plan, made.edits) : []
  const home = `/sites/${plan.site.id}`
  const tick = (wanted: readonly string[], on: boolean) => {
    const next = new FormData()
    for (const [name, value] of typed) if (name !== 'id') next.append(name, value)
    const now = new Set(ids)
    for (const id of wanted) on ? now.add(id) : now.delete(id)
    for (const id of now) next.append('id', id)
    setTyped(next)
  }
  return (
    <>
      <Heading as="h1" size="xl" mb="1">
        Many at once
      </Heading>
      <p className={`${text.small} ${look.lists}`}>
        {MANY_LISTS.map((each) => (
          <RouterLink
            key={each}
            to={`${home}/many?list=${each}`}
            aria-current={each === list ? 'true' : undefined}
            className={text.link}
          >
            {listNames[each]}
          </RouterLink>
        ))}
      </p>
      {did && (
        <Notice tone="clear" slim>
          <Undo change={did} back={`${home}/many?list=${list}`}>
            It is done, as one change.
          </Undo>
        </Notice>
      )}
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {rows.length === 0 ? (
        <Text>There are no {listNames[list].toLowerCase()} on this site yet.</Text>
      ) : (
        <div className={look.sides}>
          <Form
            id="many"
            className={look.choose}
            onInput={({ currentTarget }) => setTyped(withTicks(new FormData(currentTarget), ids, shown))}
            onSubmit={(event) => {
              event.preventDefault()
              setParams(new URLSearchParams([...new FormData(event.currentTarget)].map(([k, v]) => [k, String(v)])))
            }}
          >
            <input type="hidden" name="list" value={list} />
            <Labelled label="What to change">
              <PlainSelect name="do" defaultValue={what} key={list}>
                {MANY_ACTIONS[list].map((each) => (
                  <option key={each} value={each}>
                    {actionNames[each]}
                  </option>
                ))}
              </PlainSelect>
            </Labelled>
            <ManyFields key={what} what={what} fields={params} />
            <Flex gap="3" align="end" wrap="wrap" my="3">
              <Labelled label="Only those with" flex="1 1 160px">
                <PlainInput
                  value={filter}
                  onChange={({ currentTarget }) => setFilter(currentTarget.value)}
                  placeholder="words of the name"
                  maxLength={120}
                />
              </Labelled>
              <QuietButton
                type="button"
                onClick={() =>
                  tick(
                    shown.slice(0, MOST_MANY).map(({ id }) => id),
                    true,
                  )
                }
              >
                Tick {shown.length === rows.length ? 'all' : `these ${shown.length}`}
              </QuietButton>
              <QuietButton type="button" onClick={() => tick([...ids], false)}>
                Tick none
              </QuietButton>
            </Flex>
            <ul className={look.things} aria-label={listNames[list]} data-ticks="">
              {shown.slice(0, MOST_MANY).map(({ id, name }) => (
                <li key={id}>
                  <label className={look.tick}>
                    <input
                      type="checkbox"
                      name="id"
                      value={id}
                      checked={ids.has(id)}
                      onChange={({ currentTarget }) => tick([id], currentTarget.checked)}
                    />
                    <span>{name}</span>
                  </label>
                </li>
              ))}
            </ul>
            {shown.length > MOST_MANY && (
              <Text fontSize="sm">
                And {shown.length - MOST_MANY} more. At most {MOST_MANY} at once; narrow them by words.
              </Text>
            )}
            <noscript>
              <QuietButton>Show what changes</QuietButton>
            </noscript>
          </Form>
          <section className={look.preview} aria-label="What changes" aria-live="polite">
            <Heading as="h2" size="md" mb="2">
              What changes
            </Heading>
            {ids.size === 0 ? (
              <Text>Tick what is meant. What changes is shown here before anything is saved.</Text>
            ) : !read.ok ? (
              <Text>{read.problem}</Text>
            ) : faults.length > 0 ? (
              <Notice tone="tight">
                {faults.slice(0, 8).map(({ reason }) => (
                  <Text key={reason}>{`${reason.charAt(0).toUpperCase()}${reason.slice(1)}.`}</Text>
                ))}
              </Notice>
            ) : (
              <>
                <RuledTable label="What changes" columns={['What', 'Change']} maxH="420px">
                  {lines.slice(0, MOST_LINES).map(({ key, noun, name, what: becomes }) => (
                    <tr key={key}>
                      <td className={text.anywhere}>
                        <span className={text.quiet}>{noun}</span> {name}
                      </td>
                      <td className={text.anywhere}>{becomes}</td>
                    </tr>
                  ))}
                </RuledTable>
                {lines.length > MOST_LINES && <Text fontSize="sm">and {lines.length - MOST_LINES} more</Text>}
                <Form method="post">
                  <MadeFrom />
                  {[...typed].map(([name, value], at) =>
                    name === 'did' ? null : (
                      // biome-ignore lint/suspicious/noArrayIndexKey: a field may stand there many times
                      <input key={at} type="hidden" name={name} value={String(value)} />
                    ),
                  )}
                  <Flex mt="3" gap="4" align="center">
                    <MainButton loading={saving}>
                      {what === 'delete' ? 'Delete' : 'Change'} {ids.size}
                    </MainButton>
                    <Text fontSize="sm" color="quiet">
                      One change, which can be undone.
                    </Text>
                  </Flex>
                </Form>
              </>
            )}
          </section>
        </div>
      )}
    </>
  )
}
const MOST_LINES = 200

/** What a form says, with the ticks of what a filter has put out of sight. */
function withTicks(form: FormData, ids: ReadonlySet<string>, shown: readonly { id: string }[]): FormData {
  const seen = new Set(shown.map(({ id }) => id))
  for (const id of ids) if (!seen.has(id)) form.append('id', id)
  return form
}
