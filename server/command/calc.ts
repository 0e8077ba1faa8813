import type { Command } from 'commander'
import { chipCalc } from './calc-chip'
import { dropCalc, headsetCalc, routeCalc, soundCalc, storageCalc, wayCalc } from './calc-physics'
import { fitCalc, mstCalc, streamCalc, timingCalc, tunnelCalc } from './calc-pictures'
import { powerCalc } from './calc-power'
import type { Answer, Words } from './calc-words'
import { plainCommand } from './plain-command'

type Calculation = {
  summary: string
  usage: string
  options: Record<string, { type: 'string' | 'boolean'; multiple?: true }>
  answer(words: Words): Answer
}

const text = { type: 'string' } as const
const many = { type: 'string', multiple: true } as const
const flag = { type: 'boolean' } as const

const calculations: Record<string, Calculation> = {
  timing: {
    summary: 'the clock and blanking of a picture',
    usage: 'timing 3840x2160@60 --standard cvt|cvt-rb1|cvt-rb2|cvt-rb3|vic:97',
    options: { standard: text },
    answer: timingCalc,
  },
  stream: {
    summary: 'what a picture needs of a link',
    usage: 'stream 3840x2160@60 --bpc 8 --chroma 444 --standard cvt-rb2',
    options: { standard: text, bpc: text, chroma: text },
    answer: streamCalc,
  },
  fit: {
    summary: 'whether a picture fits a link, and what would',
    usage: 'fit 3840x2160@144 --bpc 10 --link dp:hbr3x4 [--link hdmi:tmds-18, behind an adapter] [--dsc]',
    options: { link: many, bpc: text, chroma: text, dsc: flag },
    answer: fitCalc,
  },
  mst: {
    summary: 'how displays in a row share one link',
    usage: 'mst --link hbr2x4 MODE MODE ... [--dsc]',
    options: { link: text, dsc: flag },
    answer: mstCalc,
  },
  tunnel: {
    summary: 'what a dock’s tunnel leaves to storage beside its pictures',
    usage: 'tunnel --link 20|40|80|120/40 --picture 3840x2160@60:hbr3x4 ... [--storage 3000] [--reserve link|stream]',
    options: { link: text, picture: many, storage: text, reserve: text },
    answer: tunnelCalc,
  },
  storage: {
    summary: 'what a drive reaches over a link, and how long a job takes',
    usage:
      'storage --mode usb4-40 [--drive-write 3500] [--drive-read 3500] [--pcie 3x4] [--bridge poor] [--users 2] [--job "100 GB"]',
    options: { mode: text, 'drive-write': text, 'drive-read': text, pcie: text, bridge: text, users: text, job: text },
    answer: storageCalc,
  },
  power: {
    summary: 'what charger, lead and device agree on',
    usage:
      'power --supply 100 | --levels 5x3,9x3,20x3.25 --amps 3|5 [--volts 20|50] [--accepts 5,9,20] [--kept 5] [--second 60] [--wants 96] | power --pool shared:60:27,27,27|assured:65,30|drops:100,18:60,18 --used 1,2',
    options: {
      supply: text,
      levels: text,
      amps: text,
      volts: text,
      accepts: text,
      wants: text,
      kept: text,
      second: text,
      pool: text,
      used: text,
    },
    answer: powerCalc,
  },
  drop: {
    summary: 'the volts a lead loses',
    usage: 'drop --awg 22 --length 2m --amps 5 [--celsius 40] | drop --loop 0.11 --amps 5',
    options: { awg: text, length: text, amps: text, celsius: text, loop: text },
    answer: dropCalc,
  },
  headset: {
    summary: 'whether a headset’s battery holds, and how far its lead reaches',
    usage:
      'headset --capacity 16 --draw 8 --supply 9.2 [--start 80] [--measured "1.6 Gb/s" --decoder "150 Mb/s"] [--area 2x2 --port 0.5m --head 1.7m]',
    options: {
      capacity: text,
      draw: text,
      supply: text,
      start: text,
      measured: text,
      decoder: text,
      area: text,
      port: text,
      head: text,
    },
    answer: headsetCalc,
  },
  sound: {
    summary: 'how far away a box is quiet enough',
    usage: 'sound --level 49 [--level 34 ...] --at 0.7m --wanted 30',
    options: { level: many, at: text, wanted: text },
    answer: soundCalc,
  },
  way: {
    summary: 'the shortest way along pathways',
    usage:
      'way --from rack --to desk --pathway "rack tray 3m" --pathway "tray desk 14ft outdoors" ... [--avoid outdoors]',
    options: { from: text, to: text, pathway: many, avoid: many },
    answer: wayCalc,
  },
  chip: {
    summary: 'what the words of a cable’s chip mean',
    usage: 'chip 1c00abcd 00000000 12340100 11082042 [--revision 2|3] [--length 2m --mark 40 --power "100 W"]',
    options: { revision: text, length: text, mark: text, power: text },
    answer: chipCalc,
  },
  route: {
    summary: 'the length of a route, and what its conduit holds',
    usage: 'route --leg "down 0.7m" --leg "along 3m" ... [--slack 0.3m] [--conduit 20mm --cable 5mm --cable 4mm]',
    options: { leg: many, slack: text, conduit: text, cable: many },
    answer: routeCalc,
  },
}

/** `./hallway calc NAME ...`: readable by default, `--json` for machines. Bad input is a sentence with the allowed range. */
export function calcCommand(print: (text: string) => void): Command {
  const command = plainCommand('calc')
    .summary('one calculation by itself')
    .description('One calculation by itself; --json for machines.')
  for (const [name, { summary, usage, options, answer }] of Object.entries(calculations)) {
    const one = plainCommand(name)
      .summary(summary)
      .argument('[words...]')
      .option('--json', 'for machines')
      .addHelpText(
        'after',
        `\nAs in:\n  ${usage
          .split(' | ')
          .map((each) => `./hallway calc ${each}`)
          .join('\n  ')}`,
      )
    for (const [option, { type, multiple }] of Object.entries(options)) {
      if (type === 'boolean') one.option(`--${option}`)
      else if (multiple) one.option(`--${option} <value>`, 'may be given several times', collected)
      else one.option(`--${option} <value>`)
    }
    one.action((positionals: string[]) => {
      const { json, text: lines } = answer({ values: valuesOf(one), positionals })
      print(one.opts().json ? JSON.stringify(json) : lines.join('\n'))
    })
    command.addCommand(one)
  }
  return command
}

const collected = (value: string, before: string[] = []): string[] => [...before, value]

/** What was given, by the names that people type. */
const valuesOf = (command: Command): Words['values'] =>
  Object.fromEntries(
    command.options.map((option) => [option.long?.slice(2) ?? '', command.opts()[option.attributeName()]]),
  )
