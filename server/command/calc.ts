import type { Command } from 'commander'
import { chipCalc } from './calc-chip'
import { listingCalc } from './calc-listing'
import { dropCalc, headsetCalc, routeCalc, soundCalc, storageCalc, wayCalc } from './calc-physics'
import { fitCalc, mstCalc, streamCalc, timingCalc, tunnelCalc } from './calc-pictures'
import { powerCalc } from './calc-power'
import type { Answer, Words } from './calc-words'
import { plainCommand } from './plain-command'

type Option = { says: string; sort: 'once' | 'many' | 'flag' }
type Calculation = {
  summary: string
  /** Lines that work as they stand, words behind `./hallway calc`. */
  examples: readonly string[]
  options: Readonly<Record<string, Option>>
  answer(words: Words): Answer
}

const once = (says: string): Option => ({ says, sort: 'once' })
const many = (says: string): Option => ({ says: `${says}; may be given several times`, sort: 'many' })
const flag = (says: string): Option => ({ says, sort: 'flag' })
const CHROMA = '444, 422 or 420'
const STANDARD = 'cvt, cvt-rb1, cvt-rb2, cvt-rb3, or a listed one such as vic:97'

const calculations: Readonly<Record<string, Calculation>> = {
  timing: {
    summary: 'the clock and blanking of a picture',
    examples: ['timing 3840x2160@60', 'timing 3840x2160@60 --standard cvt-rb2'],
    options: { standard: once(STANDARD) },
    answer: timingCalc,
  },
  stream: {
    summary: 'what a picture needs of a link',
    examples: ['stream 3840x2160@60', 'stream 3840x2160@60 --bpc 10 --chroma 422 --standard cvt-rb2'],
    options: { standard: once(STANDARD), bpc: once('bits per colour'), chroma: once(CHROMA) },
    answer: streamCalc,
  },
  fit: {
    summary: 'whether a picture fits a link, and what would',
    examples: [
      'fit 3840x2160@144 --bpc 10 --link dp:hbr3x4 --dsc',
      'fit 3840x2160@60 --link dp:hbr2x4 --link hdmi:tmds-18',
    ],
    options: {
      link: many('dp:hbr3x4, hdmi:tmds-18 and the like; a second one stands behind an adapter'),
      bpc: once('bits per colour'),
      chroma: once(CHROMA),
      dsc: flag('both ends have compression'),
    },
    answer: fitCalc,
  },
  mst: {
    summary: 'how displays in a row share one link',
    examples: ['mst --link hbr2x4 2560x1440@60 1920x1080@60'],
    options: { link: once('hbr2x4 and the like'), dsc: flag('all of them have compression') },
    answer: mstCalc,
  },
  tunnel: {
    summary: 'what a dock’s tunnel leaves to storage beside its pictures',
    examples: [
      'tunnel --link 40 --picture 3840x2160@60:hbr3x4 --storage 3000',
      'tunnel --link 20 --picture 3840x2160@60:hbr2x4 --picture 2560x1440@60:hbr2x4 --reserve stream',
    ],
    options: {
      link: once('20, 40, 80 or 120/40'),
      picture: many('a picture and the link it comes up at'),
      storage: once('MB/s that are asked'),
      reserve: once('link or stream: how a host holds room for pictures'),
    },
    answer: tunnelCalc,
  },
  storage: {
    summary: 'what a drive reaches over a link, and how long a job takes',
    examples: [
      'storage --mode usb4-40 --drive-write 3500 --pcie 3x4 --job "100 GB"',
      'storage --mode gen2x1 --bridge poor --users 2',
    ],
    options: {
      mode: once('gen1x1, gen2x1, usb4-40 and the like'),
      'drive-write': once('MB/s'),
      'drive-read': once('MB/s'),
      pcie: once('lanes inside, such as 3x4'),
      bridge: once('good or poor'),
      users: once('how many share the link'),
      job: once('how much there is to copy'),
    },
    answer: storageCalc,
  },
  power: {
    summary: 'what charger, lead and device agree on',
    examples: [
      'power --supply 100 --amps 5 --wants 96',
      'power --levels 5x3,9x3,20x3.25 --amps 3 --accepts 5,9,20',
      'power --pool shared:60:27,27,27 --used 1,2',
    ],
    options: {
      supply: once('watts of the charger'),
      levels: once('volts and amps it offers, such as 5x3,9x3,20x3.25'),
      amps: once('amps of the lead: 3 or 5'),
      volts: once('volts of the lead: 20 or 50'),
      accepts: once('volts that the device takes'),
      wants: once('watts that the device takes'),
      kept: once('watts that a hub keeps on the way'),
      second: once('watts of a second supply'),
      pool: once('shared:TOTAL:PORTS, assured:PORTS or drops:ALONE:TOGETHER'),
      used: once('ports in use, from 1 on'),
    },
    answer: powerCalc,
  },
  listing: {
    summary: 'what a shop page claims of a lead, what of it cannot be, and what to ask the seller',
    examples: ['listing "USB-C to USB-C, Thunderbolt 5, 2 m, 240 W, 40 GB/s"'],
    options: {},
    answer: listingCalc,
  },
  drop: {
    summary: 'the volts a lead loses',
    examples: ['drop --awg 22 --length 2m --amps 5', 'drop --loop 0.11 --amps 5'],
    options: {
      awg: once('gauge of its supply conductors'),
      length: once('a length such as 2m or 6ft'),
      amps: once('amps that flow'),
      celsius: once('how warm the copper is'),
      loop: once('ohms there and back, measured'),
    },
    answer: dropCalc,
  },
  headset: {
    summary: 'whether a headset’s battery holds, and how far its lead reaches',
    examples: [
      'headset --capacity 16 --draw 8 --supply 9.2 --start 80',
      'headset --capacity 16 --draw 8 --supply 9.2 --measured "1.6 Gb/s" --decoder "150 Mb/s"',
      'headset --capacity 16 --draw 8 --supply 9.2 --area 2x2 --port 0.5m --head 1.7m',
    ],
    options: {
      capacity: once('watt hours of its battery'),
      draw: once('watts it draws'),
      supply: once('watts that reach it'),
      start: once('percent it begins with'),
      measured: once('the rate that a test read'),
      decoder: once('the rate that its decoder takes'),
      area: once('metres of the play area, such as 2x2'),
      port: once('height of the port'),
      head: once('height of the head'),
    },
    answer: headsetCalc,
  },
  sound: {
    summary: 'how far away a box is quiet enough',
    examples: ['sound --level 49 --at 0.7m --wanted 30', 'sound --level 49 --level 34 --at 1m --wanted 35'],
    options: { level: many('dB that were read'), at: once('at which distance'), wanted: once('dB that are wanted') },
    answer: soundCalc,
  },
  way: {
    summary: 'the shortest way along pathways',
    examples: [
      'way --from rack --to desk --pathway "rack tray 3m" --pathway "tray desk 14ft" --pathway "rack desk 5m outdoors" --avoid outdoors',
    ],
    options: {
      from: once('where it begins'),
      to: once('where it ends'),
      pathway: many('two places, how far, and what it passes'),
      avoid: many('what it may not pass'),
    },
    answer: wayCalc,
  },
  chip: {
    summary: 'what the words of a cable’s chip mean',
    examples: [
      'chip 1c00abcd 00000000 12340100 11082042',
      'chip 1c00abcd 00000000 12340100 11082042 --length 2m --mark 40 --power "100 W"',
    ],
    options: {
      revision: once('2 or 3, of USB Power Delivery'),
      length: once('how long it is'),
      mark: once('what is printed on it'),
      power: once('the watts printed on it'),
    },
    answer: chipCalc,
  },
  route: {
    summary: 'the length of a route, and what its conduit holds',
    examples: [
      'route --leg "down 0.7m" --leg "along 3m" --slack 0.3m',
      'route --leg "along 3m" --conduit 20mm --cable 5mm --cable 4mm',
    ],
    options: {
      leg: many('a stretch of it'),
      slack: once('kept at the ends'),
      conduit: once('inner diameter'),
      cable: many('diameter of one in it'),
    },
    answer: routeCalc,
  },
}

/** Lines that work as they stand, of all calculations. */
export const calcExamples = (): string[] => Object.values(calculations).flatMap(({ examples }) => examples)

/** `./hallway calc NAME ...`: readable by default, `--json` for machines. Bad input is a sentence with the allowed range. */
export function calcCommand(print: (text: string) => void): Command {
  const command = plainCommand('calc')
    .summary('one calculation by itself')
    .description('One calculation by itself; --json for machines.')
  for (const [name, { summary, examples, options, answer }] of Object.entries(calculations)) {
    const one = plainCommand(name)
      .summary(summary)
      .argument('[words...]')
      .option('--json', 'for machines')
      .addHelpText('after', `\nAs in:\n${examples.map((each) => `  ./hallway calc ${each}`).join('\n')}`)
    for (const [option, { says, sort }] of Object.entries(options)) {
      if (sort === 'flag') one.option(`--${option}`, says)
      else if (sort === 'many') one.option(`--${option} <value>`, says, collected)
      else one.option(`--${option} <value>`, says)
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
