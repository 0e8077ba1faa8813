import { randomUUID } from 'node:crypto'
import { Box, Grid, Heading, Link, Text } from '@chakra-ui/react'
import { type FieldMetadata, getFormProps, useForm } from '@conform-to/react'
import { parseWithZod } from '@conform-to/zod/v4'
import { useMemo } from 'react'
import { data, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import { proposeTests } from '../../../../core/bench/propose'
import { beginSession } from '../../../../core/change/changes/sessions'
import { openCables } from '../../../../core/drawer/drawer-rows'
import { abilitiesOf } from '../../../../core/link/abilities'
import { MOST_TAGGED } from '../../../../core/tags/label'
import { BENCH_TEST_KINDS, type BenchTestKind } from '../../../../core/vocabulary/session'
import { parseFields } from '../../../parse-fields.server'
import { readForm } from '../../../read-form.server'
import { changeBy, whyNotSaved } from '../../../stored.server'
import { ChangeId } from '../../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../../ui/controls'
import { SelectField, TextField } from '../../../ui/field'
import { Form } from '../../../ui/form'
import { PortField } from '../../../ui/port-field'
import { useSite } from '../../../ui/site-context'
import { Length } from '../../../ui/units'
import { UseDoor } from '../../../ui/use-door'
import { handOf } from '../../../who.server'
import type { Route } from './+types/new-session'
import look from './new-session.module.css'
import { type SessionFormTexts, sessionFormSchema, testFigures, textsOfTest } from './session-form'

/** The day a session is begun on, as it is named. */
const today = (): string => new Date().toISOString().slice(0, 10)

export const loader = () => ({ day: today() })

export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const submission = parseFields(form, sessionFormSchema, ['cables'])
  if (submission.status !== 'success')
    return data(submission.reply(), { status: submission.status === 'error' ? 422 : 200 })
  const { name, cables, tests } = submission.value
  const hand = await handOf(request, form)
  const id = `sort-${(hand.id ?? randomUUID()).slice(0, 8)}`
  const saved = await changeBy(hand, params.site, () =>
    beginSession({
      id,
      name,
      on: today(),
      cables,
      tests: tests.map((test, at) => ({ ...test, id: `t${at + 1}` })),
    }),
  )
  if (saved?.outcome !== 'saved') {
    const { problem, status } = whyNotSaved(saved)
    return data(submission.reply({ formErrors: [problem] }), { status })
  }
  return redirect(`/sites/${params.site}/drawer/sessions/${id}`)
}

/** Choose the heap and the tests; Hallway proposes tests from the ports the site has. */
export default function NewSession({ loaderData, actionData }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const [params] = useSearchParams()
  const saving = useNavigation().state === 'submitting'
  const asked = (params.get('cables') ?? '').split(' ').filter(Boolean)
  const usable = useMemo(() => plan.cables.filter(({ standing }) => standing !== 'retired'), [plan.cables])
  const chosen = (asked.length > 0 ? asked : openCables(index).map(({ id }) => id)).slice(0, MOST_TAGGED)
  // the cables asked for stand first, then those of which something is open
  const first = new Set(chosen)
  const heap = usable.filter(({ id }) => first.has(id))
  const proposed = proposeTests(index, heap)
  const [form, fields] = useForm<SessionFormTexts>({
    id: 'new-session',
    lastResult: actionData as never,
    defaultValue: { name: `Sort-out ${loaderData.day}`, cables: chosen, tests: proposed.map(textsOfTest) },
    onValidate: ({ formData }) => parseWithZod(formData, { schema: sessionFormSchema }) as never,
    shouldRevalidate: 'onInput',
  })
  if (plan.devices.length === 0)
    return (
      <Text maxW="560px">
        Cables are tested between the ports of devices, and this site has no devices yet. Add them in the survey, or
        import a{' '}
        <Link asChild color="brassInk" textDecoration="underline">
          <RouterLink to="/import">plan file</RouterLink>
        </Link>
        .
      </Text>
    )
  const tests = fields.tests.getFieldList()
  const offered = [...heap, ...usable.filter(({ id }) => !first.has(id))]
  return (
    <Form method="post" {...getFormProps(form)} aria-label="Session">
      <ChangeId />
      {form.errors && <Notice tone="blocked">{form.errors.join(' ')}</Notice>}
      <Box maxW="420px" mb="4">
        <TextField field={fields.name} label="Name" required />
      </Box>
      <Grid templateColumns={{ base: '1fr', lg: '280px 1fr' }} gap="7" alignItems="start">
        <Box as="fieldset">
          <Heading as="legend" size="md" mb="1">
            The cables
          </Heading>
          <Text fontSize="sm" color="quiet" mb="2">
            {asked.length > 0
              ? 'As chosen in the list.'
              : 'Chosen for you: cables of which nothing is known, or whose evidence disagrees.'}
          </Text>
          <FieldProblem field={fields.cables} />
          <Box maxH="430px" overflowY="auto" border="1px solid" borderColor="line" bg="card" tabIndex={0} role="group">
            {offered.slice(0, Math.max(heap.length, MOST_OFFERED)).map((cable) => (
              <label key={cable.id} className={look.offered}>
                <input
                  type="checkbox"
                  name={fields.cables.name}
                  value={cable.id}
                  defaultChecked={first.has(cable.id)}
                />
                <b>{cable.tag}</b>
                <span>
                  <UseDoor abilities={abilitiesOf(index, cable)} size={18} />
                </span>
                <Length metres={cable.length} brief />
              </label>
            ))}
          </Box>
          {offered.length > Math.max(heap.length, MOST_OFFERED) && (
            <Text fontSize="sm" color="quiet" mt="1">
              {offered.length - Math.max(heap.length, MOST_OFFERED)} more: choose them in the list of cables, then “Sort
              out”.
            </Text>
          )}
        </Box>
        <Box as="fieldset">
          <Heading as="legend" size="md" mb="1">
            The tests
          </Heading>
          <Text fontSize="sm" color="quiet" mb="2">
            Every cable goes through those it fits. Proposed from the ports of this site; change them as your bench is.
          </Text>
          <FieldProblem field={fields.tests} />
          {tests.map((test, at) => (
            <TestLine key={test.key ?? test.id} test={test as never} number={at + 1}>
              <QuietButton
                {...form.remove.getButtonProps({ name: fields.tests.name, index: at })}
                aria-label={`Remove test ${at + 1}`}
              >
                Take out
              </QuietButton>
            </TestLine>
          ))}
          <QuietButton
            {...form.insert.getButtonProps({
              name: fields.tests.name,
              defaultValue:
                tests.length > 0 ? { ...(tests.at(-1)?.initialValue as object), kind: 'warmth' } : { kind: 'link' },
            } as never)}
          >
            Add a test
          </QuietButton>
        </Box>
      </Grid>
      <Box mt="5">
        <MainButton loading={saving}>Start the session</MainButton>
      </Box>
    </Form>
  )
}

/** A page offers so many cables to tick; more are chosen in the list. */
const MOST_OFFERED = 80

const FieldProblem = ({ field }: { field: { errors?: string[] | undefined; errorId: string } }) =>
  field.errors ? (
    <Text id={field.errorId} color="blocked" fontWeight="600" fontSize="sm" mb="1">
      {field.errors.join(' ')}
    </Text>
  ) : null

function TestLine({
  test,
  number,
  children,
}: {
  test: FieldMetadata<SessionFormTexts['tests'][number]>
  number: number
  children: React.ReactNode
}) {
  const { kind, from, to, figure } = test.getFieldset() as {
    [Name in 'kind' | 'from' | 'to' | 'figure']: FieldMetadata<string>
  }
  const wanted = testFigures[(kind.value ?? '') as BenchTestKind]
  return (
    <Grid
      role="group"
      aria-label={`Test ${number}`}
      templateColumns={{ base: '1fr', md: '122px 1fr 1fr 108px auto' }}
      gap="2"
      mb="3"
      alignItems="end"
    >
      <SelectField field={kind} label="Test">
        {BENCH_TEST_KINDS.map((each) => (
          <option key={each} value={each}>
            {each}
          </option>
        ))}
      </SelectField>
      <PortField field={from} label="Host end in" />
      <PortField field={to} label="Far end in" />
      {wanted ? <TextField field={figure} label={wanted.label} placeholder={wanted.usual} /> : <Box />}
      {children}
    </Grid>
  )
}
