import { useSyncExternalStore } from 'react'
import { Link } from 'react-router'
import { QuietButton } from '../ui/controls'
import { Moment } from '../ui/moment'
import { theOutbox, tryNow } from './install'
import { type Item, typedIn } from './item'
import type { Outbox, Shown, Waiting, Why } from './outbox'
import look from './outbox-bar.module.css'

const NOTHING: Shown = { waiting: [], reading: false }
const never = () => () => {}

/** What is on its way and what became of it, at the foot of every page. It says nothing while all goes well. */
export function OutboxBar() {
  const outbox = theOutbox()
  const { waiting, reading } = useSyncExternalStore(
    outbox?.subscribe ?? never,
    outbox?.shown ?? (() => NOTHING),
    () => NOTHING,
  )
  const said = waiting.filter(({ state }) => state !== 'sending')
  return (
    <div className={look.place} role="status">
      {outbox && said.map((entry) => <Line key={entry.item.id} entry={entry} outbox={outbox} />)}
      {reading && said.length === 0 && (
        <p className={look.line}>
          No connection to Hallway. This page carries on by itself when it is back. <TryNow />
        </p>
      )}
    </div>
  )
}

const whys: Record<Why, string> = {
  line: 'there is no line to Hallway',
  database: 'the database does not answer',
  disk: 'the server’s disk is full',
  busy: 'too much was sent in one minute',
  'signed out': 'you are signed out',
}

function Line({ entry, outbox }: { entry: Waiting; outbox: Outbox }) {
  const { item } = entry
  const here = item.page === `${location.pathname}${location.search}`
  switch (entry.state) {
    case 'waiting':
      return (
        <p className={look.line}>
          <b>Not certain that it was saved</b>: {whys[entry.why]}. What you sent{!here && <From item={item} />} is kept
          here and sent again by itself; it is saved once.{' '}
          {entry.why === 'signed out' && (
            <a href="/sign-in" target="_blank" rel="noreferrer" className={look.link}>
              Sign in
            </a>
          )}{' '}
          <TryNow />
        </p>
      )
    case 'taken':
      return (
        <p className={look.line}>
          <b>It is saved</b>: what was sent
          <From item={item} />.
        </p>
      )
    case 'refused':
      return (
        <div className={look.line}>
          <p>
            <b>It was not saved</b>: what was sent
            <From item={item} /> {whyRefused(entry.status)} What you typed:
          </p>
          <dl className={look.typed}>
            {typedIn(item).map(([name, value], at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a form has several fields of one name, in an order that stays
              <div key={at}>
                <dt>{name}</dt>
                <dd>{value}</dd>
              </div>
            ))}
          </dl>
          <QuietButton small type="button" onClick={() => void outbox.forget(item.id)}>
            Dismiss
          </QuietButton>
        </div>
      )
    default:
      return null
  }
}

function whyRefused(status: number): string {
  switch (status) {
    case 403:
      return 'could not be saved: you may not change that here, or somebody else is signed in by now.'
    case 404:
      return 'could not be saved: what it belongs to was removed.'
    case 409:
      return 'could not be saved: somebody else changed the same. Open the page and do it again.'
    case 413:
      return 'is too large.'
    default:
      return 'does not fit the site. Open the page and do it again.'
  }
}

const From = ({ item }: { item: Item }) => (
  <>
    {' '}
    at <Moment at={new Date(item.at).toISOString()} /> from{' '}
    <Link to={item.page} className={look.link}>
      this page
    </Link>
  </>
)

const TryNow = () => (
  <QuietButton small type="button" onClick={tryNow}>
    Try now
  </QuietButton>
)
