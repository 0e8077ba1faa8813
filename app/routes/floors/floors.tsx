import { Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { data, Link as RouterLink, redirect, useNavigation } from 'react-router'
import { couldFollow, followPathways, saveFloor } from '../../../core/change/changes/floors'
import { byId } from '../../../core/plan/lookup'
import { wayOf } from '../../../core/route/follow'
import type { Run } from '../../../core/vocabulary/run'
import { refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { addressWith, change, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { GradeMark } from '../../ui/grade'
import { takesLength } from '../../ui/keep-typed-unit'
import { LongTable, type RowProps } from '../../ui/long-table'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { Length, useUnit } from '../../ui/units'
import { readUnit } from '../../unit-cookie'
import type { Route } from './+types/floors'
import look from './floor.module.css'
import { readFloor } from './floor-form'
import { noWayWords, RouteWords } from './route-words'

export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const saved = await change(request, form, params.site, ({ plan, place }) => {
    if (form.get('intent') === 'follow') {
      const runs = couldFollow(plan)
      return runs.length > 0
        ? followPathways(plan, runs, place)
        : refused('runs', 'no run has both its ends on the pathways and does not follow them yet')
    }
    const floor = readFloor(form, null, plan, readUnit(request))
    if (!floor.ok) return refused('floor', floor.problem)
    return saveFloor(floor.value, null)
  })
  if (saved?.outcome === 'saved') {
    const made = saved.edits.find(({ list }) => list === 'floors')
    const floors = `/sites/${params.site}/floors`
    return redirect(made ? `${floors}/${made.id}` : addressWith(floors, { took: saved.id }))
  }
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

/** The floors of a site, and the runs that take their way over the pathways on them. */
export default function Floors({ actionData }: Route.ComponentProps) {
  const { plan } = useSite()
  const busy = useNavigation().state !== 'idle'
  const unit = useUnit()
  const home = `/sites/${plan.site.id}`
  const following = useMemo(() => plan.runs.filter(({ route }) => route.follows), [plan.runs])
  const could = useMemo(() => couldFollow(plan), [plan])
  return (
    <>
      <Heading as="h1" size="xl" mb="3">
        Floors and pathways
      </Heading>
      {plan.places.length > 0 && (
        <p className={text.small}>
          <RouterLink to={`${home}/many?list=places`} className={text.link}>
            Many places at once
          </RouterLink>
          : move them on their floor, rename, delete.
        </p>
      )}
      <Took />
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {plan.floors.length === 0 ? (
        <Text mb="3" maxW="680px">
          Add a drawing of the floor, mark one length you know, put the places on it and lay the pathways that cables
          take. Runs then find their route and length by themselves. Without a floor, type a run’s length or its legs.
        </Text>
      ) : (
        <RuledTable label="Floors" cards columns={['Floor', 'Surface at', 'Places', 'Pathways', 'Drawing']}>
          {plan.floors.map((floor) => (
            <tr key={floor.id}>
              <td className={text.wide}>
                <RouterLink to={`${home}/floors/${floor.id}`} className={`${text.link} ${text.strong}`}>
                  {floor.name}
                </RouterLink>
              </td>
              <td className={text.mono}>{floor.level === 0 ? '0' : <Length metres={floor.level} />}</td>
              <td>{plan.places.filter(({ at }) => at?.floor === floor.id).length}</td>
              <td>{plan.pathways.filter(({ points }) => points.some((point) => point.floor === floor.id)).length}</td>
              <td>{floor.drawing ? 'to scale' : 'none yet'}</td>
            </tr>
          ))}
        </RuledTable>
      )}
      <Form method="post" className={look.line} key={plan.floors.length}>
        <MadeFrom />
        <TextField field={plainField('name')} label="A new floor" required maxLength={120} />
        <TextField
          field={plainField('level', plan.floors.length === 0 ? '0' : '')}
          label={`Height of the floor, ${unit}`}
          {...takesLength}
        />
        <MainButton loading={busy}>Add the floor</MainButton>
      </Form>
      {plan.floors.length > 0 && (
        <section aria-labelledby="follow-heading" className={look.block}>
          <Heading as="h2" size="md" mb="2" id="follow-heading">
            Runs that follow the pathways
          </Heading>
          {could.length > 0 && (
            <Form method="post" className={look.line}>
              <MadeFrom />
              <Text>
                {could.length === 1 ? 'One run has' : `${could.length} runs have`} both ends on the pathways, with a
                length that was typed.
              </Text>
              <QuietButton name="intent" value="follow">
                Let {could.length === 1 ? 'it' : 'them all'} follow
              </QuietButton>
            </Form>
          )}
          {following.length === 0 ? (
            <Text color="quiet">None yet.</Text>
          ) : (
            <LongTable label="Runs that follow the pathways" columns={COLUMNS} rows={following} keyOf={({ id }) => id}>
              {(run, props) => <FollowingLine key={run.id} run={run} props={props} />}
            </LongTable>
          )}
        </section>
      )}
    </>
  )
}

const COLUMNS = ['Run', 'Its route', 'Length', 'Verdict']

function FollowingLine({ run, props }: { run: Run; props: RowProps }) {
  const { plan, index, assessment } = useSite()
  const way = run.route.legs ? null : wayOf(plan, run)
  return (
    <tr {...props}>
      <td>
        <RouterLink to={`/sites/${plan.site.id}/runs/${run.id}`} className={`${text.link} ${text.mono}`}>
          {run.tag}
        </RouterLink>
      </td>
      <td className={text.widest}>
        {way && 'why' in way ? noWayWords(way, index) : <RouteWords legs={run.route.legs ?? []} />}
      </td>
      <td>
        <Length metres={run.route.length} />
      </td>
      <td>
        <GradeMark grade={byId(assessment.runs).get(run.id)?.grade ?? 'clear'} />
      </td>
    </tr>
  )
}
