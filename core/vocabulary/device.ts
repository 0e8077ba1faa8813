import { z } from 'zod'
import { CONNECTORS, GENDERS } from '../standards/connectors'
import { CABLE_GRADES } from '../standards/grades'
import { DISPLAYPORT_LINKS, HDMI_LEVELS } from '../standards/picture-links'
import { dayField, idField, lengthField, nameField, noteField, rateField, wattsField } from './fields'
import { heightField, noiseSchema, spotSchema } from './floor'

export const DEVICE_KINDS = [
  'computer',
  'display',
  'projector',
  'dock',
  'hub',
  'storage',
  'headset',
  'camera',
  'sensor',
  'charger',
  'extender',
  'other',
] as const
export type DeviceKind = (typeof DEVICE_KINDS)[number]

/** Which end of a USB link a port can be. A hub has a device port upstream and host ports downstream. */
export const PORT_ROLES = ['host', 'device', 'either'] as const

/** Where a port may sit. */
export const PORT_SITES = ['board', 'graphics card', 'add-in card', 'front', 'hub', 'display'] as const
export type PortSite = (typeof PORT_SITES)[number]

/** What may be installed on a computer and bears on what its ports do. */
export const INSTALLED = ['system', 'firmware', 'driver'] as const

/** Modes of a display at most; no display says more. */
export const MOST_MODES = 120

/** What a display says of itself (EDID): the modes it takes, the one it is made for first. */
const screenSchema = z.strictObject({
  name: nameField.optional(),
  modes: z
    .array(
      z.strictObject({
        width: z.number().int().min(1).max(65_535),
        height: z.number().int().min(1).max(65_535),
        refresh: z.number().min(1).max(1000),
      }),
    )
    .max(MOST_MODES),
  bits: z.literal([6, 8, 10, 12, 14, 16]).optional().describe('The most bits per colour it takes'),
  hdr: z.boolean().optional().describe('Whether it says that it takes high dynamic range'),
  read: dayField.describe('The day it was read'),
})
export type Screen = z.output<typeof screenSchema>

export const portSchema = z.strictObject({
  id: idField,
  name: nameField,
  connector: z.enum(CONNECTORS),
  gender: z.enum(GENDERS).default('socket').describe('"plug" for a captive lead'),
  role: z.enum(PORT_ROLES).default('either'),
  usb: z
    .enum(['usb2', 'gen1x1', 'gen2x1', 'gen2x2'])
    .optional()
    .describe('The best plain USB mode; every lower one is implied. Left out: no USB data'),
  usb4: z.literal([20, 40, 80]).optional().describe('USB4 rate in Gb/s; lower rates are implied'),
  thunderbolt: z.literal([3, 4, 5]).optional().describe('Thunderbolt generation'),
  displayport: z
    .strictObject({
      direction: z.enum(['out', 'in']),
      link: z.enum(DISPLAYPORT_LINKS),
      lanes: z.literal([1, 2, 4]).default(4),
      compression: z.boolean().default(false).describe('Display stream compression'),
    })
    .optional()
    .describe('DisplayPort, on its own connector or as the alternate mode of type-C'),
  hdmi: z
    .strictObject({
      direction: z.enum(['out', 'in']),
      level: z.enum(HDMI_LEVELS),
      compression: z.boolean().default(false),
    })
    .optional(),
  gives: wattsField.optional().describe('The most power it gives'),
  takes: wattsField.optional().describe('The most power it takes'),
  levels: z
    .array(z.strictObject({ volts: z.number().min(3).max(50), amps: z.number().min(0.1).max(5) }))
    .max(8)
    .optional()
    .describe('The supply levels it gives, where its plate lists them; otherwise they follow from its rating'),
  accepts: z
    .array(z.number().min(3).max(50))
    .max(8)
    .optional()
    .describe('The voltages it charges at, where it is particular'),
  ownPlug: nameField.optional().describe("What a maker's own plug is called; only plugs of one name mate"),
  lacksResistors: z
    .literal(true)
    .optional()
    .describe('A type-C port without the two resistors: only an A-to-C lead feeds it'),
  captive: z
    .strictObject({
      length: lengthField,
      grade: z.enum(CABLE_GRADES).optional().describe('What it carries; left out: what its port speaks'),
      swappable: z.literal(true).optional().describe('It is held by a bracket, and can be swapped for another'),
    })
    .optional()
    .describe('The captive lead that ends in this plug; its length counts'),
  sits: z.enum(PORT_SITES).optional().describe('Where it sits; shops and makers give different odds for each'),
  reserves: z
    .enum(['link', 'stream'])
    .optional()
    .describe(
      'How a host holds room for pictures in a tunnel: whole link rates, or what each sends; left out: by the rules',
    ),
  controller: nameField.optional().describe('The controller or bus behind the port'),
})
export type Port = z.output<typeof portSchema>

export const deviceSchema = z.strictObject({
  id: idField,
  name: nameField,
  kind: z.enum(DEVICE_KINDS),
  place: idField.optional(),
  at: spotSchema.optional().describe('Where it stands on a floor, where that is not its place'),
  height: heightField
    .optional()
    .describe("Metres above the floor at which its ports are, where that is not its place's"),
  noise: noiseSchema.optional().describe('How loud it is'),
  installed: z
    .array(z.strictObject({ what: z.enum(INSTALLED), version: nameField, on: dayField }))
    .max(20)
    .optional()
    .describe('What is installed on it, and since when: results belong to it'),
  screen: screenSchema.optional().describe('What a display says of itself'),
  seen: dayField.optional().describe('The day its ports were read off the device itself'),
  visits: idField.optional().describe('A visitor: it comes and goes, and sits where this device sits'),
  battery: z
    .strictObject({
      wattHours: z.number().min(0.1).max(1000),
      draw: wattsField.describe('What it draws while it is used'),
      uses: z
        .array(z.strictObject({ refresh: z.number().min(10).max(480), draw: wattsField }))
        .max(8)
        .optional()
        .describe('What it draws at some refresh rates, where that was measured'),
    })
    .optional()
    .describe('A headset that must hold or charge while it is worn'),
  disk: z
    .strictObject({
      write: rateField,
      read: rateField,
      pcie: z
        .enum(['3x1', '3x2', '3x4', '4x1', '4x2', '4x4', '5x2', '5x4'])
        .optional()
        .describe('Lanes inside the enclosure'),
      bridge: z.enum(['good', 'poor']).default('good'),
    })
    .optional()
    .describe('What the drive inside can do'),
  decoder: rateField.optional().describe('The most that the decoder of a headset takes'),
  pictureOverUsb: rateField
    .optional()
    .describe('A dock that makes its pictures over plain USB, compressed and by a driver: what one takes of the link'),
  rated: z
    .strictObject({
      cat5: lengthField.optional(),
      cat6: lengthField.optional(),
      cat6a: lengthField.optional(),
      fibre: lengthField.optional(),
    })
    .optional()
    .describe('How far an extender is rated over each sort of cable'),
  drivers: z
    .enum(['needs', 'takes none'])
    .optional()
    .describe('A device that needs drivers on its computer, or a computer that takes none'),
  pool: z
    .discriminatedUnion('kind', [
      z
        .strictObject({ kind: z.literal('shared'), total: wattsField })
        .describe('One total; the first plugged in is served first'),
      z
        .strictObject({ kind: z.literal('drops'), together: z.record(idField, wattsField) })
        .describe('What each port falls to as soon as anything is in another one'),
    ])
    .optional()
    .describe('How its ports share what it has; left out: each gives its own rating whatever the others do'),
  keeps: wattsField
    .optional()
    .describe(
      'A hub without a supply that is charged through: the watts it keeps of what it is fed, and passes on the rest',
    ),
  controllers: z
    .array(
      z.strictObject({
        name: nameField.describe('As its ports name it'),
        carries: rateField.describe('What it carries in all, each way, after coding'),
      }),
    )
    .max(16)
    .optional()
    .describe('What a controller or bus carries for all ports that hang on it; left out: as much as they ask'),
  busPowered: z
    .boolean()
    .default(false)
    .describe('A hub without a supply of its own: all behind it lives on its uplink'),
  ports: z.array(portSchema).max(64).default([]),
  note: noteField.optional(),
})
export type Device = z.output<typeof deviceSchema>

/** Devices that pass on what arrives: a path may run through them. */
export const passesThrough = (device: Device): boolean =>
  device.kind === 'dock' || device.kind === 'hub' || device.kind === 'extender'
