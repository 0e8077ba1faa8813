import { data } from 'react-router'
import { byId } from '../../../core/plan/lookup'
import { fieldsRead, type Patch, patchSchema } from '../../../core/survey/take-reading'
import type { SentFile } from '../../../server/web/sent-form'
import { readDeviceText } from '../../off-thread.server'
import { loadSite } from '../../stored.server'
import type { DeviceFault } from './device-form'
import type { ReadingAnswer } from './read-device'

type Answer = DeviceFault & { reading?: ReadingAnswer }

/** Reads what a device said, and sets it beside what is on record. Nothing is saved by it. */
export async function readReading(form: FormData, file: SentFile | null, siteId: string, deviceId: string) {
  const wrong = (problem: string, status = 422) =>
    data<Answer>({ problem: `${problem} Nothing was saved.`, lines: [] }, { status })
  const work = await readDeviceText(file ? { path: file.path } : { text: String(form.get('said') ?? '') })
  if (!work.done) return wrong(work.problem, work.status)
  if (!work.value.ok) return wrong(work.value.problem)
  const { copy } = await loadSite(siteId)
  const device = byId(copy.plan.devices).get(deviceId)
  if (!device) return wrong('The device is no longer there.', 404)
  const reading = work.value.value
  const fields = fieldsRead(reading, device, new Date().toISOString().slice(0, 10))
  return data<Answer>({
    problem: '',
    lines: [],
    reading: {
      fields,
      seen: [
        ...reading.displays.map(({ name }) => `the display ${name ?? 'without a name'}`),
        ...reading.buses.map(({ name, ports }) => `${name}${ports === null ? '' : ` with ${ports} ports`}`),
        ...reading.usb.map(({ name }) => name),
        ...reading.ports.map(({ name }) => name),
      ],
      faults: reading.faults,
      skipped: [...new Set(reading.skipped)],
    },
  })
}

/** What somebody accepted of a reading. */
export function readPatches(form: FormData): Patch[] {
  return form.getAll('accept').flatMap((each) => {
    try {
      return patchSchema.parse(JSON.parse(String(each))) as Patch
    } catch {
      return []
    }
  })
}
