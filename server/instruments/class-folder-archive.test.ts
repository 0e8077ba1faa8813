import { strToU8, zipSync } from 'fflate'
import { pack } from 'tar-stream'
import { describe, expect, it } from 'vitest'
import { readClassFolder } from '../../core/identity/class-folder'
import { readArchive } from './class-folder-archive'

/** As a computer shows one port's cable, padded as the kernel claims its files are. */
const folder = {
  'sys/class/typec/port0-cable/identity/id_header': '0x1c00abcd\n'.padEnd(4096, '\0'),
  'sys/class/typec/port0-cable/identity/cert_stat': '0x0\n',
  'sys/class/typec/port0-cable/identity/product': '0x12340100\n',
  'sys/class/typec/port0-cable/identity/product_type_vdo1': '0x11082042\n',
  'sys/class/typec/port0-cable/plug_type': 'type-c\n',
}

const zipped = (files: Record<string, string>) =>
  zipSync(Object.fromEntries(Object.entries(files).map(([path, text]) => [path, strToU8(text)])))

async function tarred(files: Record<string, string>, more: (tar: ReturnType<typeof pack>) => void = () => {}) {
  const tar = pack()
  for (const [name, text] of Object.entries(files)) tar.entry({ name }, text)
  more(tar)
  tar.finalize()
  const pieces: Buffer[] = []
  for await (const piece of tar) pieces.push(piece as Buffer)
  return Uint8Array.from(Buffer.concat(pieces))
}
const cablesIn = async (bytes: Uint8Array) => {
  const files = await readArchive(bytes)
  return files.ok ? readClassFolder(files.value) : files
}
const problem = async (bytes: Uint8Array) => {
  const read = await readArchive(bytes)
  return read.ok ? '' : read.problem
}

describe('a packed class folder', () => {
  it('gives the same cable from a zip and from a tar', async () => {
    const fromZip = await cablesIn(zipped(folder))
    expect(fromZip).toMatchObject({ ok: true, value: [{ port: 'port0', words: { idHeader: 0x1c00abcd, vdo2: null } }] })
    expect(await cablesIn(await tarred(folder))).toEqual(fromZip)
  })
  it('passes over what is no file of such a folder', async () => {
    const large = 'x'.repeat(20_000)
    const links = (tar: ReturnType<typeof pack>) => {
      tar.entry({ name: 'sys/class/typec/port1-cable', type: 'symlink', linkname: '/etc/passwd' })
      tar.entry({ name: 'sys/class/typec/', type: 'directory' })
    }
    const files = { 'sys/class/typec/port1-cable/identity/id_header': large, ...folder }
    expect(await cablesIn(await tarred(files, links))).toMatchObject({ value: [{ port: 'port0' }] })
    expect(await cablesIn(zipped(files))).toMatchObject({ value: [{ port: 'port0' }] })
  })
  it('is refused in words where it is none, damaged or endless', async () => {
    expect(await problem(strToU8('not an archive'))).toMatch(/neither a .tar nor a .zip/)
    expect(await problem(Uint8Array.from([0x1f, 0x8b, 8, 0]))).toMatch(/unpack it/)
    expect(await problem(zipped(folder).slice(0, 300))).toMatch(/could not be read/)
    expect(await problem((await tarred(folder)).slice(0, 700))).toMatch(/could not be read/)
    const many = Object.fromEntries(Array.from({ length: 4001 }, (_, at) => [`f${at}`, '']))
    expect(await problem(zipped(many))).toMatch(/more than 4000 files/)
    expect(await problem(await tarred(many))).toMatch(/more than 4000 files/)
  })
})
