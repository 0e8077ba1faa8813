import { data } from 'react-router'
import { database } from '../../server/database/connection'
import { playMeter } from '../../server/instruments/simulated-meter'
import { watchJob } from '../../server/jobs/news'
import { watchInstruments } from '../../server/series/news'
import { listen } from '../../server/sites/live'
import { eventStream } from '../../server/web/event-stream'
import { whileAllowed } from '../asker.server'
import { loadSite } from '../stored.server'
import type { Route } from './+types/live'
import { meterOn } from './drawer/session/meter.server'

/**
 * The one stream of a page, as server-sent events for as long as it is open: the place in the log that the site comes to, and whatever else the page watches
 * (`meter`: the bench meter, by what it is put on; `instruments`: those on a run; `job`: what is
 * made for a handover).
 */
export async function loader({ request, params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  const { searchParams } = new URL(request.url)
  const watched = searchParams.get('meter')
  const proved = searchParams.get('instruments')
  const made = searchParams.get('job')
  const meter = watched === null ? null : meterOn(copy.plan, new URLSearchParams(watched))
  if (watched !== null && meter === null) throw data('There is no such lead in this session.', { status: 404 })
  return eventStream(request, (tell, leave) => {
    tell('place', copy.place)
    const stops = [listen(database(), params.site, (place) => tell('place', place))]
    if (proved !== null)
      stops.push(watchInstruments(database(), params.site, proved, (news) => tell('instruments', news)))
    if (made !== null) stops.push(watchJob(database(), params.site, made, (job) => tell('job', job)))
    if (meter) stops.push(playMeter(meter, (sample) => tell('sample', sample)))
    stops.push(whileAllowed(params.site, leave))
    return () => {
      for (const stop of stops) stop()
    }
  })
}
