import { execFile } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { open, readdir, realpath, rm, stat } from 'node:fs/promises'
import { isAbsolute, join, relative, resolve } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { promisify } from 'node:util'
import { PROBED, type ProbeReading, probeEvents, probeOf, type SystemTree } from '../../core/identity/probe'
import { Failure } from '../failure'

/** A file of these classes holds a word or two, an EDID a few blocks. */
const LARGEST_FILE = 65_536
const MOST_ENTRIES = 1000
const LOOK_EVERY_MS = 1000

export type ProbeOptions = { root?: string; watch?: boolean; copy?: string; size?: string }

/** What this computer itself tells of its ports: read without root, and without writing anywhere but into a file of its own where `--copy` asks for it. */
export async function probeCommand(options: ProbeOptions, say: (text: string) => void): Promise<void> {
  if (options.copy !== undefined) {
    say(JSON.stringify(await copyTest(options.copy, sizeOf(options.size))))
    return
  }
  const root = resolve(options.root ?? '/')
  if (!(await stat(root).catch(() => null))?.isDirectory()) throw new Failure(`There is no folder ${root}.`)
  let now = probeOf(await treeOf(root))
  if (!options.watch) {
    say(JSON.stringify(now, null, 2))
    return
  }
  say(JSON.stringify({ at: new Date().toISOString(), event: 'began', ...countsOf(now) }))
  for (;;) {
    await wait(LOOK_EVERY_MS)
    const next = probeOf(await treeOf(root))
    const at = new Date().toISOString()
    for (const event of probeEvents(now, next)) say(JSON.stringify({ at, ...event }))
    now = next
  }
}

const countsOf = ({ usb, typec, pictures, tunnels }: ProbeReading) => ({
  usb: usb.length,
  typec: typec.length,
  pictures: pictures.length,
  tunnels: tunnels.length,
})

/** The files that a probe reads, below a root. What cannot be read is left out: a cable without a chip has no such file. */
export async function treeOf(root: string): Promise<SystemTree> {
  const texts = new Map<string, string>()
  const bytes = new Map<string, Uint8Array>()
  const real = new Map<string, string>()
  const whole = await realpath(root)
  for (const { folder, files, bytes: raw = [] } of PROBED) {
    const entries = await readdir(join(root, folder)).catch(() => [])
    for (const entry of entries.slice(0, MOST_ENTRIES)) {
      const place = `${folder}/${entry}`
      const there = await realpath(join(root, place)).catch(() => null)
      // a copied tree may hold links that lead out of it: they are not followed
      if (there === null || isOutside(whole, there)) continue
      real.set(place, relative(whole, there))
      texts.set(`${place}/`, '')
      for (const file of files) {
        const read = await readSmall(join(there, file))
        if (read) texts.set(`${place}/${file}`, read.toString('utf8'))
      }
      for (const file of raw) {
        const read = await readSmall(join(there, file))
        if (read) bytes.set(`${place}/${file}`, read)
      }
    }
  }
  return { texts, bytes, real }
}

function isOutside(root: string, path: string): boolean {
  const from = relative(root, path)
  return from.startsWith('..') || isAbsolute(from)
}

async function readSmall(path: string): Promise<Buffer | null> {
  const file = await open(path).catch(() => null)
  if (!file) return null
  try {
    const { bytesRead, buffer } = await file.read(Buffer.alloc(LARGEST_FILE), 0, LARGEST_FILE, 0)
    return buffer.subarray(0, bytesRead)
  } catch {
    return null
  } finally {
    await file.close()
  }
}

const MEGABYTE = 1e6
const BLOCK = 4 * 1024 * 1024

function sizeOf(given: string | undefined): number {
  const megabytes = Number(given ?? 1000)
  if (!Number.isInteger(megabytes) || megabytes < 8 || megabytes > 1_000_000)
    throw new Failure('The size is so many MB, from 8 to 1000000: --size 4000.')
  return Math.ceil((megabytes * MEGABYTE) / BLOCK)
}

/** Writes a file of its own into a folder past the cache, reads it back, and takes it away. Where the file system takes no direct writes it says "cached". */
async function copyTest(folder: string, blocks: number) {
  const there = await stat(folder).catch(() => null)
  if (!there?.isDirectory()) throw new Failure(`There is no folder ${folder}.`)
  const path = join(resolve(folder), `hallway-copy-${randomUUID()}.tmp`)
  const run = async (args: readonly string[]): Promise<number> => {
    const begun = process.hrtime.bigint()
    await promisify(execFile)('dd', [...args, `bs=${BLOCK}`, 'status=none'])
    return Number(process.hrtime.bigint() - begun) / 1e9
  }
  const write = (flags: string[]) => run(['if=/dev/zero', `of=${path}`, `count=${blocks}`, 'conv=fsync', ...flags])
  const read = (flags: string[]) => run([`if=${path}`, 'of=/dev/null', ...flags])
  const rate = (seconds: number): number => Math.round((blocks * BLOCK) / MEGABYTE / Math.max(seconds, 1e-6))
  let cached = false
  try {
    const wrote = await write(['oflag=direct']).catch(() => {
      cached = true
      return write([])
    })
    const back = cached ? await read([]) : await read(['iflag=direct'])
    return {
      at: new Date().toISOString(),
      megabytes: Math.round((blocks * BLOCK) / MEGABYTE),
      write: rate(wrote),
      read: rate(back),
      cached,
    }
  } catch {
    throw new Failure(`The file could not be written into ${folder}: is there room, and may you write there?`)
  } finally {
    await rm(path, { force: true })
  }
}
