import { formatPictureMode } from '../picture/mode-text'
import { portKey, type SiteIndex, socketAt } from '../plan/site-index'
import { durationText } from '../quantity/duration'
import { needLabel } from '../vocabulary/need'
import type { Run } from '../vocabulary/run'
import type { RunState } from './proof'
import type { RunTest, RunTestKind } from './run-tests'

const names: Record<RunTestKind, string> = {
  link: 'The link comes up',
  picture: 'Picture',
  write: 'Write to the disk',
  read: 'Read from the disk',
  watts: 'Power arrives',
  'volts lost': 'Volts lost',
  warmth: 'Plugs stay cool',
  battery: 'Battery in use',
  'headset link': "The headset's own link test",
  frames: 'Frames come',
  'added delay': 'Added delay',
  sight: 'To the eye',
  soak: 'Everything at once',
}

/**
 * What a test is called on a page: "Picture 3840x2160@60, bridge view", "Everything at once, 8 h". With its run the socket is named as well, where it is another
 * than the run's own.
 */
export function testName(index: SiteIndex, { kind, crossing, seconds, socket }: RunTest, run?: Run): string {
  const need = crossing?.need
  const what =
    kind === 'picture' && need?.kind === 'picture'
      ? `${names.picture} ${formatPictureMode(need.mode)}, ${needLabel(need, index.devices)}`
      : kind === 'soak'
        ? `${names.soak}, ${durationText(seconds)}`
        : names[kind]
  const isOwn = !run || portKey(socket) === portKey(run.from)
  return isOwn ? what : `${what}, in ${socketAt(index, socket).port.name}`
}

/** What a state is called, and what it says. */
export const stateWords: Record<RunState, { name: string; says: string }> = {
  planned: { name: 'Planned', says: 'Nobody has laid it yet.' },
  laid: { name: 'Laid', says: 'It is laid. Tests tell whether it holds.' },
  failed: { name: 'Failed', says: 'A test failed as it lies. Find the fault, then test it again.' },
  stale: { name: 'Stale', says: 'Something changed since it was tested: prove it again.' },
  proved: { name: 'Proved', says: 'Every test that its needs ask for has passed.' },
  accepted: { name: 'Accepted', says: 'Somebody accepted it as it is.' },
}
