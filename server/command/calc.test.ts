import { describe, expect, it } from 'vitest'
import { calcCommand, calcExamples } from './calc'

/** A command line as a shell would split it, with double quotes. */
const split = (line: string): string[] =>
  [...line.matchAll(/"([^"]*)"|(\S+)/g)].map((found) => found[1] ?? found[2] ?? '')
function run(line: string): string {
  const out: string[] = []
  calcCommand((text) => out.push(text)).parse(split(line), { from: 'user' })
  return out.join('\n')
}
const json = (line: string) => JSON.parse(run(`${line} --json`))

describe('./hallway calc', () => {
  it('every line that a calculation shows as an example works as it stands', () => {
    const lines = calcExamples()
    expect(lines.length).toBeGreaterThan(12)
    for (const line of lines) expect(run(line), line).toMatch(/\S/)
  })
  it('timing, as agreed', () => {
    expect(json('timing 3840x2160@60 --standard cvt-rb2')).toEqual({
      pixelClockHz: 522614000,
      hTotal: 3920,
      vTotal: 2222,
      refreshHz: 59.99995,
    })
    expect(json('timing --standard vic:97').pixelClockHz).toBe(594e6)
    expect(json('timing 1920x1080@60 --standard cvt').pixelClockHz).toBe(173e6)
  })
  it('stream', () => {
    expect(json('stream 3840x2160@60 --bpc 8 --chroma 444 --standard cvt-rb2')).toEqual({
      bitsPerSecond: 522614000 * 24,
    })
    expect(json('stream 3840x2160@60 --bpc 10 --chroma 420')).toEqual({ bitsPerSecond: 522614000 * 15 })
  })
  it('fit, with what fits instead', () => {
    expect(json('fit 3840x2160@144 --bpc 10 --link dp:hbr3x4')).toMatchObject({
      fits: false,
      instead: [{ concession: 'compression' }, { mode: '3840x2160@90 10 bit' }, {}, {}],
    })
    expect(json('fit 3840x2160@144 --bpc 10 --link dp:hbr3x4 --dsc')).toMatchObject({ fits: true, instead: [] })
    expect(run('fit 3840x2160@60 --link hdmi:tmds-18')).toContain('fits: it needs 14.26 Gb/s')
  })
  it('mst', () => {
    expect(json('mst --link hbr2x4 2560x1440@60 2560x1440@60 3840x2160@60')).toMatchObject({ slots: 63, used: 42 })
  })
  it('tunnel, by either policy, with storage beside', () => {
    const two = 'tunnel --link 40 --picture 3840x2160@60:hbr3x4 --picture 3840x2160@60:hbr3x4 --storage 3000'
    expect(json(two).pictures.map((picture: { fits: boolean }) => picture.fits)).toEqual([true, false])
    expect(json(`${two} --reserve stream`).pictures.map((picture: { fits: boolean }) => picture.fits)).toEqual([
      true,
      true,
    ])
    const { write, read } = json(two).storage
    expect(write[1]).toBeLessThan(read[0])
  })
  it('storage', () => {
    expect(json('storage --mode gen2x1 --drive-write 3500 --job "100 GB"')).toMatchObject({
      write: { lowMBps: 950, highMBps: 1060, limitedBy: 'link' },
    })
    expect(run('storage --mode tbt3-40 --pcie 3x4')).toContain('limited by the pcie')
  })
  it('chip, against what is printed', () => {
    const words = 'chip 1800abcd 00000000 00420100 00082020'
    expect(json(words)).toMatchObject({ facts: { grade: 'usb2', amps: 3, length: { above: 0, upTo: 1 } } })
    const lines = run(`${words} --length 3m --mark 40 --power "100 W"`)
    expect(lines).toMatch(/^A passive cable, USB 2.0, 3 A, up to 1 m long.\n! The lead is stated to be 3 m long/)
    expect(lines).toContain('! It claims USB4 40 Gb/s; its chip says USB 2.0.')
    expect(lines).toMatch(/29:27 {2}product type +passive cable/)
    expect(json('chip 2000abcd 0 0 --revision 3'.replaceAll(' 0', ' 00000000')).facts.product).toBe('active')
    expect(() => run('chip 12')).toThrow(/each word has eight/)
  })
  it('power and drop', () => {
    expect(json('power --supply 100 --amps 3 --wants 96')).toMatchObject({ watts: 60, limit: 'lead', enough: false })
    expect(json('power --levels 5x3,20x3.25 --amps 5 --accepts 5')).toMatchObject({ watts: 15, limit: 'device' })
    expect(json('power --supply 100 --amps 5 --kept 5 --wants 96')).toMatchObject({ watts: 95, enough: false })
    expect(json('power --supply 57 --amps 3 --second 87')).toMatchObject({ watts: 87 })
    expect(json('power --pool shared:60:27,27,27 --used 1,2,3')).toEqual({ watts: [27, 27, 6] })
    expect(json('power --pool drops:100,18:60,18 --used 1,2')).toEqual({ watts: [60, 18] })
    expect(run('power --pool assured:65,30 --used 2')).toBe('port 2: 30 W')
    expect(json('drop --awg 22 --length 2m --amps 5')).toMatchObject({ allowed: false })
    // a good 0.8 m lead that loses about half a volt at 5 A (common practice): ground has twice the copper
    expect(json('drop --awg 24 --length 0.8m --amps 5')).toMatchObject({ allowed: true })
    expect(json('drop --loop 0.1086 --amps 5').totalVolts).toBeCloseTo(0.543, 9)
  })
  it('headset, sound and route', () => {
    expect(json('headset --capacity 16 --draw 8')).toEqual({ battery: { course: 'drains', hours: 2 } })
    expect(json('headset --capacity 16 --draw 8 --measured "1.6 Gb/s" --decoder "150 Mb/s" --area 2x2')).toMatchObject({
      link: { fasterCableHelps: false },
    })
    expect(json('sound --level 60 --at 1m --wanted 40').distanceMetres).toBeCloseTo(10, 9)
    expect(json('route --leg "down 0.7m" --leg "diagonal 3m x 4m" --slack 0.3m').lengthMetres).toBeCloseTo(6.3, 9)
    expect(json('route --conduit 20mm --cable 5mm --cable 5')).toMatchObject({
      conduit: { allowed: true, plugPasses: true },
    })
  })

  it('the shortest way, with what it passes and without what is to be avoided', () => {
    const site = '--pathway "rack tray 3m" --pathway "tray desk 2m" --pathway "rack desk 4m outdoors"'
    expect(json(`way --from rack --to desk ${site}`)).toEqual({
      lengthMetres: 4,
      pathways: ['rack-desk'],
      conditions: ['outdoors'],
    })
    expect(json(`way --from rack --to desk ${site} --avoid outdoors`)).toMatchObject({
      lengthMetres: 5,
      conditions: [],
    })
    expect(run(`way --from rack --to desk ${site}`)).toContain('ask a licensed person')
  })
  it('through an adapter the link that leaves the picture less decides', () => {
    const both = (links: string) => json(`fit 3840x2160@60 ${links}`)
    expect(both('--link dp:hbr2x4 --link hdmi:tmds-18')).toMatchObject({ fits: true, link: 'HDMI 18 Gb/s' })
    expect(both('--link dp:hbr2x4 --link hdmi:tmds-10.2')).toMatchObject({ fits: false })
    expect(both('--link dp:hbrx4 --link hdmi:tmds-18')).toMatchObject({ fits: false, link: 'DisplayPort HBR x4' })
  })

  it.each([
    ['sing', "unknown command 'sing'"],
    ['timing', 'One picture mode'],
    ['timing 1@1', 'Write a picture like'],
    ['timing 3840x2160@60 --standard vic:9999', 'no progressive CTA-861 format'],
    ['timing 3840x2160@60 --standard cvt-rb9', '--standard takes cvt, cvt-rb1'],
    ['stream 3840x2160@60 --bpc 9', '--bpc takes 6, 8, 10, 12, 16'],
    ['fit 3840x2160@60 --link hbr9x4', 'dp:LINKxLANES'],
    ['fit 3840x2160@60', '--link is missing'],
    ['mst --link hdmi:tmds-18 1920x1080@60', 'Several displays share a DisplayPort link'],
    ['tunnel --link 60', '--link takes 20, 40, 80, 120/40'],
    ['storage --mode warp', '--mode takes usb2'],
    ['storage --pcie 9x9', '--pcie takes generation x lanes'],
    ['storage --job lots', '--job takes an amount'],
    ['power --pool lots --used 1', '--pool takes'],
    ['power --pool assured:65 --used 2', 'a number from 1 to 1'],
    ['power --levels 5x3x3', '--levels takes'],
    ['power --supply 500', 'a number from 1 to 240'],
    ['drop --awg 99 --length 1m --amps 1', 'a number from 0 to 40'],
    ['drop --awg 22 --length "5 parsecs" --amps 1', 'is not a length'],
    ['headset --capacity 0 --draw 8', 'a number from 0.1 to 1000'],
    ['headset --capacity 16 --draw 8 --area 2', 'a number from'],
    ['sound --at 1m --wanted 30', 'One --level or more'],
    ['fit 3840x2160@60 --link hdmi:tmds-18 --link dp:hbr2x4', 'takes a converter made for it'],
    ['way --from rack --to desk --pathway "rack tray 3m"', 'No pathway given leads from rack to desk'],
    ['way --from rack --to desk --pathway rack', 'A pathway is'],
    ['power --supply 100 --kept 900', 'a number from 0 to 240'],
    ['route', 'Give --leg'],
    ['route --leg "over"', 'has no length'],
  ])('%s: refused with what is allowed', (line, reason) => {
    expect(() => run(line)).toThrow(reason)
  })
})
