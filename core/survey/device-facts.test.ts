import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DEVICE_KINDS, type Device, deviceSchema, portSchema } from '../vocabulary/device'
import { nameField } from '../vocabulary/fields'
import { deviceFacts, deviceTicks, ticksOf, withFact, withTicks } from './device-facts'
import { fromTemplate, templates } from './templates'

const ports = ['c-1', 'c-2'].map((id, at) =>
  portSchema.parse({ id, name: `C ${at + 1}`, connector: 'type-c', gives: 60 }),
)
const context = { unit: 'm', ports } as const
const tenths = (from: number, to: number) => fc.integer({ min: from * 10, max: to * 10 }).map((value) => value / 10)
const megabytes = fc.integer({ min: 1, max: 9000 }).map((each) => each * 8e6)

/** Something that each fact may be, by its field: a fact that is added does not pass without its own. */
const values: Record<(typeof deviceFacts)[number]['field'], fc.Arbitrary<unknown>> = {
  disk: fc.record(
    { write: megabytes, read: megabytes, pcie: fc.constantFrom('3x4', '4x2'), bridge: fc.constantFrom('good', 'poor') },
    { requiredKeys: ['write', 'read', 'bridge'] },
  ),
  battery: fc.record(
    {
      wattHours: tenths(1, 90),
      draw: tenths(1, 100),
      uses: fc.array(fc.record({ refresh: fc.integer({ min: 60, max: 144 }), draw: tenths(1, 30) }), {
        minLength: 1,
        maxLength: 4,
      }),
    },
    { requiredKeys: ['wattHours', 'draw'] },
  ),
  decoder: fc.integer({ min: 1, max: 900 }).map((each) => each * 1e6),
  pool: fc.oneof(
    tenths(10, 200).map((total) => ({ kind: 'shared', total })),
    tenths(1, 60).map((watts) => ({ kind: 'drops', together: { 'c-1': watts, 'c-2': 18 } })),
  ),
  keeps: tenths(1, 20),
  controllers: fc.array(
    fc.record({
      name: fc.stringMatching(/^[a-zA-Z0-9@,:;_% -]{1,20}$/).filter((name) => nameField.safeParse(name).data === name),
      carries: fc.integer({ min: 1, max: 64 }).map((each) => each * 1e9),
    }),
    { minLength: 1, maxLength: 4 },
  ),
  pictureOverUsb: fc.integer({ min: 1, max: 9 }).map((each) => each * 1e9),
  rated: fc
    .record(
      { cat5: tenths(5, 50), cat6: tenths(5, 60), cat6a: tenths(5, 100), fibre: tenths(5, 900) },
      { requiredKeys: [] },
    )
    .filter((rated) => Object.keys(rated).length > 0),
  noise: fc.record(
    { level: tenths(0, 100), loaded: tenths(0, 100), distance: tenths(1, 90) },
    { requiredKeys: ['level', 'distance'] },
  ),
  installed: fc.constant([{ what: 'system', version: '12.4', on: '2026-03-02' }]),
}

describe.each(deviceFacts.map((fact) => [fact.field, fact] as const))(
  'what is said of a device as its %s',
  (field, fact) => {
    it('comes back the same, whatever it is, and could be a file', () => {
      fc.assert(
        fc.property(values[field], (value) => {
          const device = deviceSchema.parse({ id: 'd', name: 'D', kind: 'other', ports, [field]: value })
          const said = fact.say(device, context)
          expect(said).not.toBe('')
          const { [field]: _, ...bare } = device
          expect(withFact(bare as Device, fact, said, context)).toEqual({ ok: true, value: device })
        }),
      )
    })
    it('has an example that is read, and is asked of some kind of device', () => {
      for (const example of fact.example.split(', or: '))
        expect(fact.read(example, context)).toMatchObject({ ok: true })
      expect(fact.kinds.every((kind) => DEVICE_KINDS.includes(kind))).toBe(true)
    })
    it('is taken away where nothing is said, and says how to write it where it is not understood', () => {
      expect(withFact({ [field]: 1 } as never, fact, ' ', context)).toEqual({ ok: true, value: {} })
      const wrong = withFact({} as Partial<Device>, fact, 'no such thing, x', context)
      expect(wrong).toMatchObject({ ok: false, problem: expect.stringMatching(/^[A-Z].*[:.]/) })
    })
    it('never fails on what people type', () => {
      fc.assert(
        fc.property(fc.string({ maxLength: 60 }), (text) => void withFact({} as Partial<Device>, fact, text, context)),
      )
    })
  },
)

it('what is ticked of a device comes back as it was', () => {
  for (const { name } of deviceTicks) {
    const none = ticksOf({ busPowered: false })
    expect(ticksOf(withTicks({}, { ...none, [name]: true }))).toEqual({ ...none, [name]: true })
  }
})

it('what a usual device has is said on its form, by the facts that its kind is asked', () => {
  for (const template of templates) {
    const device = fromTemplate(template)
    for (const fact of deviceFacts) {
      if (device[fact.field] === undefined) continue
      expect(fact.kinds, `${template.name}: ${fact.field}`).toContain(device.kind)
      expect(
        withFact(device, fact, fact.say(device, { ...context, ports: device.ports }), {
          ...context,
          ports: device.ports,
        }),
      ).toEqual({
        ok: true,
        value: device,
      })
    }
  }
})
