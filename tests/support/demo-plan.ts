import { readFileSync } from 'node:fs'
import { readPlanText } from '../../core/plan/read'

const read = readPlanText(readFileSync('demo/saltmarsh.json', 'utf8'))
if (!read.ok) throw new Error('the demo plan has faults')

/** The demo site, as tests of anything may take it. */
export const demo = read.plan
