import { megabytes } from '../../core/files/storage'
import { sizes } from '../sites/sizes'
import { withDatabase } from './with-database'

/** Prints what every site takes up, and all of it together. */
export async function sizesCommand(say: (line: string) => void): Promise<void> {
  const { sites, log } = await withDatabase(sizes)
  const total = (of: (site: (typeof sites)[number]) => number) => sites.reduce((sum, site) => sum + of(site), 0)
  const rows = [
    ['site', 'plan', 'files', 'changes'],
    ...sites.map(({ id, plan, files, changes }) => [
      id,
      `${megabytes(plan)} MB`,
      `${megabytes(files)} MB`,
      `${changes}`,
    ]),
  ]
  const [first = 0, ...others] = [0, 1, 2, 3].map((at) => Math.max(...rows.map((row) => (row[at] ?? '').length)))
  for (const [name = '', ...figures] of rows)
    say([name.padEnd(first), ...figures.map((figure, at) => figure.padStart(others[at] ?? 0))].join('  '))
  const [plans, files] = [total(({ plan }) => plan), total((site) => site.files)]
  say(
    `All together ${megabytes(plans + files + log)} MB: plans ${megabytes(plans)} MB, files ${megabytes(files)} MB, the logs of all sites ${megabytes(log)} MB.`,
  )
}
