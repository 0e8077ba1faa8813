import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { deviceSchema } from '../vocabulary/device'
import { parseSurveyLines, surveyExample, usualDevice } from './device-line'
import { portLine } from './port-line'
import { fromTemplate, templates } from './templates'

const kindsOf = (text: string) => parseSurveyLines(text).devices.map(({ device }) => device.kind)

describe('a survey typed as lines', () => {
  it('reads the example that the page shows', () => {
    const { places, devices, faults } = parseSurveyLines(surveyExample)
    expect(faults).toEqual([])
    expect(places).toEqual(['Desk 1'])
    expect(devices.map(({ place, device }) => [place, device.name, device.kind, device.ports.length])).toEqual([
      ['Desk 1', 'Desk 1 laptop', 'computer', 4],
      ['Desk 1', 'Desk 1 dock', 'dock', 7],
      ['Desk 1', 'Display left', 'display', 1],
    ])
  })
  it('knows what people call a device, by its name alone where that says it', () => {
    expect(kindsOf('Desk 4 laptop\nWall monitor\nMeeting TV\nFront PC\nBackup SSD\nwebcam')).toEqual([
      'computer',
      'display',
      'projector',
      'computer',
      'storage',
      'camera',
    ])
  })
  it('every usual device is found by its own name, and by its ports as they are written', () => {
    for (const template of templates) {
      expect(usualDevice(template.name)?.name).toBe(template.name)
      const usual = fromTemplate(template)
      const { devices, faults } = parseSurveyLines(['Thing', template.name, ...usual.ports.map(portLine)].join('; '))
      expect(faults).toEqual([])
      expect(devices[0]?.device).toMatchObject({ name: 'Thing', kind: usual.kind, ports: usual.ports })
    }
  })
  it('cells of a spreadsheet are parts of a line', () => {
    expect(parseSurveyLines('Dock\tdock\thost: type-C device tb4 gives 96W').devices[0]?.device.ports).toHaveLength(1)
  })
  it('says of each line it cannot read why, and reads the others', () => {
    const { devices, faults } = parseSurveyLines('Thing\nlaptop; blender\nlaptop; laptop; hdmi 9.9\nlaptop')
    expect(faults.map(({ line }) => line)).toEqual([1, 2, 3])
    expect(devices).toHaveLength(1)
  })
  it('whatever is pasted, what it reads fits a plan', () => {
    const part = fc.oneof(
      fc.string(),
      fc.constantFrom('laptop', 'dock', 'Desk 1:', ';', '\t', '\n', 'hdmi 2.0', '2x type-A 5g'),
    )
    fc.assert(
      fc.property(fc.array(part, { maxLength: 30 }), (parts) => {
        const { places, devices } = parseSurveyLines(parts.join(''))
        expect(new Set(places).size).toBe(places.length)
        for (const { device, place } of devices) {
          expect(deviceSchema.safeParse({ ...device, id: 'x' }).success).toBe(true)
          if (place !== null) expect(places).toContain(place)
        }
      }),
    )
  })
})
