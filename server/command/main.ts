import type { Command } from 'commander'
import { Failure } from '../failure'
import { calcCommand } from './calc'
import { check } from './check'
import type { MeterOptions } from './meter'
import { obey, plainCommand } from './plain-command'
import type { ProbeOptions } from './probe'
import type { StartOptions } from './start'

const say = (text: string): void => console.log(text)
const complain = (text: string): void => console.error(text)

/** All that `./hallway` does. Each command loads only what it needs: `check` answers at once. */
function hallway(end: (code: number) => void): Command {
  const program = plainCommand('./hallway').description(
    'Hallway plans cable runs: what each door passes at its length, and which one is too narrow.',
  )
  const add = (name: string, summary: string): Command => {
    const command = plainCommand(name).summary(summary).description(summary)
    program.addCommand(command)
    return command
  }
  const starts = (name: 'demo' | 'start', summary: string): Command =>
    add(name, summary)
      .option('--port <number>', 'where it listens (4310)')
      .option('--host <address>', 'the address it listens on (127.0.0.1)')
      .addHelpText(
        'after',
        '\nHALLWAY_DATABASE_URL=mysql://... uses a database of yours; HALLWAY_URL=https://... is the address people use\nwhere a proxy that ends TLS stands in front.',
      )
      .action(async (options: StartOptions) => (await import('./start')).start(options, { demo: name === 'demo' }))
  starts('demo', 'set up what is missing, load the demo site, open Hallway').option(
    '--people',
    'with accounts: four people of the demo with different rights',
  )
  starts('start', 'the same without demo data')
  add('check', 'the verdict on a plan file; needs no database')
    .argument('<plan>')
    .option('--json', 'for machines')
    .action((file: string, { json = false }: { json?: boolean }) => end(check(file, { json, print: say, complain })))
  program.addCommand(calcCommand(say))
  add('probe', 'what this computer itself tells of its ports (Linux); writes nothing')
    .option('--root <folder>', 'a copied tree in place of this computer')
    .option('--watch', 'tell each thing that comes, goes or changes speed, a JSON line each')
    .option('--copy <folder>', 'time a test file written and read in that folder, then delete it')
    .option('--size <megabytes>', 'the size of the test file (1000)')
    .action(async (options: ProbeOptions) => (await import('./probe')).probeCommand(options, say))
  add('meter', 'a script of yours as an instrument: JSON lines or server-sent events from standard input prove a run')
    .argument('[run]', 'the tag of the run')
    .option('--to <address>', 'the address of the site, copied from the browser')
    .option('--name <name>', 'what the instrument is called')
    .option(
      '--simulate <lead>',
      'print the lines of a made-up lead instead: as marked, charge-only, drops, falls back, heats, lies',
    )
    .option(
      '--as <instrument>',
      'read by: bench (all of them), power meter, disk test, link reporter, display lister, thermometer, headset link, audio loop',
    )
    .option('--seconds <number>', 'how long the made-up lead is watched (120)')
    .option('--pace <factor>', 'how much faster than the clock (1)')
    .action(async (run: string | undefined, options: MeterOptions) =>
      end(await (await import('./meter')).meterCommand(run, options, say)),
    )
  add('export', 'a site as a plan file, to standard output')
    .argument('<site>')
    .option('--archive <file>', 'with its drawings and photos, as a ZIP')
    .action(async (site: string, { archive }: { archive?: string }) =>
      (await import('./transfer')).exportSite(site, archive),
    )
  add('import', 'a plan file, or an archive, as a new site')
    .argument('<file>')
    .action(async (file: string) => end(await (await import('./transfer')).importFile(file)))
  add('backup', 'all sites with their logs, while Hallway runs')
    .argument('<file>')
    .action(async (file: string) => (await import('./keep')).backupCommand(file))
  add('restore', 'the sites of a backup, into an empty database')
    .argument('<file>')
    .action(async (file: string) => (await import('./keep')).restoreCommand(file))
  const people = add('people', 'who may do what: accounts, once more than one person works here')
  people
    .command('add')
    .description('make an account and print an invitation; the first one runs this Hallway')
    .argument('<name>')
    .option('--admin', 'runs this Hallway: may do everything')
    .option('--password-stdin', 'read the password from standard input, for scripts')
    .action(async (name: string, options) => (await import('./people')).addCommand(name, options, say))
  people
    .command('list')
    .description('everybody who has, or had, an account')
    .action(async () => (await import('./people')).listCommand(say))
  people
    .command('reset')
    .description('a new invitation for somebody whose password is gone')
    .argument('<name>')
    .option('--password-stdin', 'read the password from standard input, for scripts')
    .action(async (name: string, options) => (await import('./people')).resetCommand(name, options, say))
  people
    .command('retire')
    .description('end an account; its name stays in the history')
    .argument('<name>')
    .option('--keys-to <name>', 'who gets the links and tokens of this account; without it they end')
    .action(async (name: string, options) => (await import('./people')).retireCommand(name, options, say))
  people
    .command('forget')
    .description('take a name out of the history, on request of whose it is')
    .argument('<name>')
    .option('--keys-to <name>', 'who gets the links and tokens of this account; without it they end')
    .action(async (name: string, options) => (await import('./people')).forgetCommand(name, options, say))
  people
    .command('right')
    .description('what somebody may do on a site: look, work, lead or none')
    .argument('<name>')
    .argument('<site>')
    .argument('<right>')
    .action(async (name: string, site: string, right: string) =>
      (await import('./people')).rightCommand(name, site, right, say),
    )
  add('sizes', 'what sites, files and logs take up').action(async () => (await import('./sizes')).sizesCommand(say))
  add('bench', 'how fast Hallway is here, as figures and ratios')
    .option('--changes', 'what one change of a large site costs')
    .option('--load', 'pages under load, at 1, 10 and 50 connections beside a writer')
    .option('--pages', 'what every page costs, here and in a browser')
    .option('--order', 'an order for 500 runs decided, beside the same written plainly and by hand')
    .option('--prove', 'soaks and instruments at once, on a site that has seen much')
    .option('--handover', 'what the book of a handover costs, up to 2,000 runs on twelve floors')
    .option('--people', 'what a page costs signed in, beside one without accounts')
    .option('--processes', 'what more web processes give, and what it costs that they ask for each other’s changes')
    .option('--faults', 'how soon planted faults are found, beside the fixed order and the best there is')
    .option('--out <file>', 'the figures as JSON')
    .action(async (options) => (await import('./bench')).bench(options, say))
  // of the launcher, told here as well
  add('test', 'everything CI runs').action(() => complain('./hallway test runs it.'))
  add('build', 'install and build, and start nothing').action(() => complain('./hallway build does it.'))
  program.addCommand(
    plainCommand('serve')
      .option('--port <number>')
      .option('--host <address>')
      .action(async ({ host, port }) => (await import('./serve')).serve({ host, port: Number(port) })),
    { hidden: true },
  )
  program.addCommand(
    plainCommand('need-programs')
      .argument('<program=package...>')
      .action(async (pairs: string[]) => {
        const needed = pairs.map((pair) => {
          const [program = '', packageName = program] = pair.split('=')
          return { program, packageName }
        })
        for (const found of (await import('../private-database/packages')).needPrograms(needed, complain)) say(found)
      }),
    { hidden: true },
  )
  return program
}

// read by React and Express as they load, which is later: without it both run their slow development selves
process.env.NODE_ENV ??= 'production'

try {
  process.exitCode = 0
  const words = process.argv.slice(2)
  const program = hallway((code) => {
    process.exitCode = code
  })
  const code = await obey(program, words.length === 0 ? ['help'] : words)
  if (code !== 0) process.exitCode = code
} catch (error) {
  if (error instanceof Failure) complain(error.message)
  else console.error('Something in Hallway itself went wrong. Nothing more was done.\n', error)
  process.exitCode = 2
}
