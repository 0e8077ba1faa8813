import { Failure } from '../failure'
import { calc, calcUsage } from './calc'
import { check, checkUsage } from './check'

const usage = `Hallway plans cable runs: what each door passes at its length, and which one is too narrow.

  ./hallway demo             set up what is missing, load the demo site, open Hallway
  ./hallway start            the same without demo data
  ${checkUsage}
                             the verdict on a plan file; needs no database
  ${calcUsage}
  ./hallway export SITE      a site as a plan file, to standard output
  ./hallway import FILE      a plan file as a new site
  ./hallway backup FILE      all sites with their logs, while Hallway runs
  ./hallway restore FILE     the sites of a backup, into an empty database
  ./hallway bench [--changes]  how fast the core is here, as figures and ratios; what one change of a large site costs
  ./hallway test             everything CI runs

  demo and start take --port N and --host ADDRESS; HALLWAY_DATABASE_URL=mysql://... uses a database of yours.`

/** Each command loads only what it needs: `check` answers at once. */
async function run([command, ...words]: string[]): Promise<number> {
  switch (command) {
    case 'demo':
    case 'start': {
      const { start } = await import('./start')
      await start(words, { demo: command === 'demo' })
      return 0
    }
    case 'check':
      return check(
        words,
        (text) => console.log(text),
        (text) => console.error(text),
      )
    case 'calc':
      calc(words, (text) => console.log(text))
      return 0
    case 'bench': {
      const { bench } = await import('./bench')
      await bench(words, (text) => console.log(text))
      return 0
    }
    case 'export':
      await (await import('./transfer')).exportSite(words)
      return 0
    case 'import':
      return (await import('./transfer')).importFile(words)
    case 'backup':
      await (await import('./keep')).backupCommand(words)
      return 0
    case 'restore':
      await (await import('./keep')).restoreCommand(words)
      return 0
    case 'need-program': {
      const { needProgram } = await import('../private-database/packages')
      console.log(needProgram(words[0] ?? '', words[1] ?? '', (line) => console.error(line)))
      return 0
    }
    case 'help':
    case undefined:
      console.log(usage)
      return 0
    default:
      throw new Failure(`There is no command "${command}".\n\n${usage}`)
  }
}

// read by React and Express as they load, which is later: without it both run their slow development selves
process.env.NODE_ENV ??= 'production'

try {
  process.exitCode = await run(process.argv.slice(2))
} catch (error) {
  const mistyped = error instanceof TypeError && 'code' in error && String(error.code).startsWith('ERR_PARSE_ARGS')
  if (error instanceof Failure || mistyped) console.error((error as Error).message)
  else console.error('Something in Hallway itself went wrong. Nothing more was done.\n', error)
  process.exitCode = 2
}
