import { execFileSync } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** Debian's packages with the sources of Linux that checks read. They are large, so this is done at night. Nothing of them is copied. */
export type KernelPackage = 'linux-source-6.1' | 'linux-source-6.12'

/** The sources in some folders and files, unpacked for as long as a test needs them. */
export type KernelSource = {
  /** A file by its path in the sources. */
  text(path: string): string
  /** The C files below a folder. */
  files(folder: string): string[]
  remove(): void
}

export function unpackKernel(name: KernelPackage, paths: readonly string[]): KernelSource {
  const archive = `/usr/src/${name}.tar.xz`
  if (!existsSync(archive)) throw new Error(`The sources of Linux are not installed: apt-get install ${name}`)
  const root = mkdtempSync(join(tmpdir(), 'kernel-source-'))
  execFileSync('tar', [
    '-xf',
    archive,
    '-C',
    root,
    '--strip-components=1',
    '--wildcards',
    ...paths.map((path) => (/\.[ch]$/.test(path) ? `*/${path}` : `*/${path}/*.[ch]`)),
  ])
  return {
    text: (path) => readFileSync(join(root, path), 'utf8'),
    files: (folder) =>
      readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
        .filter((name) => /\.[ch]$/.test(name))
        .map((name) => `${folder}/${name}`),
    remove: () => rmSync(root, { recursive: true, force: true }),
  }
}
