import { Heading, Text } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import { data, Link as RouterLink, redirect, useNavigation, useRevalidator } from 'react-router'
import { documentsOf } from '../../../server/handover/documents'
import { type Job, jobAbout, stopJob } from '../../../server/jobs/jobs'
import { readForm } from '../../read-form.server'
import { load, save } from '../../stored.server'
import text from '../../theme/text.module.css'
import { ChangeId } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import { useStream } from '../../ui/page-stream'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { handOf } from '../../who.server'
import type { Route } from './+types/pack'
import { handoverIn } from './handed.server'
import look from './handover.module.css'
import { OtherRules } from './other-rules'
import { addressOf, beginPack } from './pack-job.server'

/** A handover, what was made for it, and how making it stands. */
export async function loader({ params }: Route.LoaderArgs) {
  const handover = await handoverIn(params.site, params.handover)
  const of = { siteId: params.site, handover: handover.id }
  return {
    handover,
    documents: await load((knex) => documentsOf(knex, of)),
    job: await load((knex) => jobAbout(knex, params.site, handover.id)),
  }
}

/** Makes what is handed over, or stops that. Nothing of the plan changes, and what was made is kept as it was made. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const handover = await handoverIn(params.site, params.handover)
  const intent = form.get('intent')
  if (intent !== 'make' && intent !== 'stop')
    return data({ problem: 'This page has no such button. Nothing was done.' }, { status: 422 })
  const done = await save(async (knex) => {
    if (intent === 'stop') return stopJob(knex, params.site, handover.id)
    const { by } = await handOf(request, form)
    return beginPack(params.site, handover.id, addressOf(request), by)
  })
  return done === null
    ? data({ problem: 'The database does not answer, so nothing was begun. Try again in a moment.' }, { status: 503 })
    : redirect(`/sites/${params.site}/handover/${handover.id}`)
}

/** What a client gets: the book first, then all of it in one file, then each part by itself. */
export default function Pack({ loaderData, actionData, params }: Route.ComponentProps) {
  const { handover, documents, job } = loaderData
  const { plan } = useSite()
  const home = `/sites/${plan.site.id}/handover/${params.handover}`
  const book = documents.find(({ name }) => name === 'book.pdf')
  return (
    <>
      <Heading as="h1" size="xl" mb="1">
        {handover.name}
      </Heading>
      <Text mb="2">
        For {handover.client}, handed over <Moment at={handover.at} />
        {handover.by && ` by ${handover.by}`}. It stands for the plan after change {handover.place}.
      </Text>
      <OtherRules judged={handover.judged ?? null} />
      <Took />
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      <Making key={job?.id} job={job} made={book !== undefined} />
      <nav aria-label="This handover" className={look.ways}>
        {book && (
          <a href={`${home}/files/book.pdf`} className={look.way}>
            <b>The book</b> <span className={text.quiet}>PDF, {sizeWords(book.size)}</span>
          </a>
        )}
        <RouterLink to={`${home}/book`} className={look.way}>
          <b>Read it here</b> <span className={text.quiet}>the same book; it prints as well</span>
        </RouterLink>
        <RouterLink to={`${home}/since`} className={look.way}>
          <b>What has changed since</b> <span className={text.quiet}>a supplement to the book</span>
        </RouterLink>
        <RouterLink to={`${home}/ahead`} className={look.way}>
          <b>If something changes</b> <span className={text.quiet}>what survives it, and what to buy</span>
        </RouterLink>
      </nav>
      {handover.conditions && (
        <section className={look.section} aria-labelledby="conditions">
          <h2 id="conditions">Conditions</h2>
          <p>{handover.conditions}</p>
        </section>
      )}
      {handover.open.length > 0 && (
        <section className={look.section} aria-labelledby="open">
          <h2 id="open">Left open when it was made</h2>
          <ul className={look.points}>
            {handover.open.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </section>
      )}
      {documents.length > 0 && (
        <section className={look.section} aria-labelledby="files">
          <h2 id="files">All of it</h2>
          <p>
            <a href={`${home}/pack.zip`} className={text.link}>
              Download all in one file
            </a>{' '}
            <span className={text.quiet}>
              (ZIP, {sizeWords(documents.reduce((sum, { size }) => sum + size, 0))} unpacked)
            </span>
          </p>
          <RuledTable label="Files of this handover" columns={['File', 'Size', 'Made']}>
            {documents.slice(0, MOST_FILES).map(({ name, size, made }) => (
              <tr key={name}>
                <td>
                  <a href={`${home}/files/${name}`} className={text.link}>
                    {name}
                  </a>
                </td>
                <td>{sizeWords(size)}</td>
                <td>
                  <Moment at={made} />
                </td>
              </tr>
            ))}
          </RuledTable>
          {documents.length > MOST_FILES && (
            <p className={text.quiet}>and {documents.length - MOST_FILES} more, all in the one file.</p>
          )}
        </section>
      )}
    </>
  )
}

const MOST_FILES = 60

const sizeWords = (bytes: number): string =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1e6).toFixed(1)} MB`

const endWords: Readonly<Record<Job['state'], string | null>> = {
  works: null,
  done: null,
  failed: 'It could not be made.',
  stopped: 'It was stopped. What had been made before is still here.',
  lost: 'Hallway was restarted while it was made. Make it again.',
}

/** How making it stands, told while it goes on. */
function Making({ job: known, made }: { job: Job | null; made: boolean }) {
  const [job, setJob] = useState(known)
  const busy = useNavigation().state === 'submitting'
  const { revalidate } = useRevalidator()
  const stream = useStream('job', (told) => setJob(JSON.parse(told)))
  const works = job?.state === 'works'
  const about = known?.about
  useEffect(() => (works && about ? stream?.watch('job', about) : undefined), [stream, works, about])
  const over = known?.state === 'works' && !works
  useEffect(() => {
    if (over) void revalidate()
  }, [over, revalidate])
  if (works)
    return (
      <section className={look.making} aria-label="Being made" aria-live="polite">
        <p>
          <b>The book is being made:</b> {job.pages} {job.pages === 1 ? 'page' : 'pages'} so far. You can leave this
          page meanwhile.
        </p>
        <progress aria-label="The book is being made" />
        <Form method="post">
          <ChangeId />
          <QuietButton name="intent" value="stop" loading={busy}>
            Stop
          </QuietButton>
        </Form>
      </section>
    )
  const why = job ? endWords[job.state] : null
  return (
    <>
      {why && (
        <Notice tone="tight">
          {why} {job?.problem}
        </Notice>
      )}
      {!made && (
        <Form method="post" className={look.again}>
          <ChangeId />
          <MainButton name="intent" value="make" loading={busy}>
            Make the book and the files
          </MainButton>
        </Form>
      )}
    </>
  )
}
