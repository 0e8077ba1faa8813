import type { Parsed } from '../../core/quantity/parsed'
import { type Chosen, type ImportContext, type Preview, previewOf, readImport } from '../csv/preview'

export type PreviewQuestion = { number: number; bytes: Uint8Array; chosen: Chosen; context: ImportContext }
export type PreviewAnswer = { number: number; read: Parsed<Preview> }

/** Reads a file as a table of cables beside the page, so that the page never stands still. */
addEventListener('message', async ({ data }: MessageEvent<PreviewQuestion>) => {
  const read = await readImport(data.bytes, data.chosen, data.context)
  const answer: PreviewAnswer = {
    number: data.number,
    read: read.ok ? { ok: true, value: previewOf(read.value) } : read,
  }
  postMessage(answer)
})
