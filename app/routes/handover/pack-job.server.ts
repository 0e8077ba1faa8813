import { database } from '../../../server/database/connection'
import { beginJob, type Job } from '../../../server/jobs/jobs'
import { publicUrl } from '../../../server/web/reach'
import { makeHandoverPack } from '../../off-thread.server'

/** The address that codes on paper open: the public one where there is one. */
export const addressOf = (request: Request): string => publicUrl()?.origin ?? new URL(request.url).origin

/** Begins to make what is handed over, or joins whoever is at it. */
export const beginPack = (siteId: string, handover: string, address: string, by: string): Promise<Job> =>
  beginJob(database(), { siteId, about: handover, by }, (hands) =>
    makeHandoverPack({ siteId, handover, address }, hands),
  )
