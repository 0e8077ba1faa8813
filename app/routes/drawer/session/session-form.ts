import { z } from 'zod'
import { formatPictureMode, parsePictureMode } from '../../../../core/picture/mode-text'
import { MOST_TAGGED } from '../../../../core/tags/label'
import { nameField } from '../../../../core/vocabulary/fields'
import { BENCH_TEST_KINDS, type BenchTest, type BenchTestKind } from '../../../../core/vocabulary/session'
import { addressFrom, portField } from '../../../ui/form-text'

/** What the figure beside a test is, and what it is where nothing is written. */
export const testFigures: Partial<Record<BenchTestKind, { label: string; usual: string }>> = {
  link: { label: 'soak, seconds', usual: '60' },
  picture: { label: 'picture', usual: '3840x2160@60' },
  'volts lost': { label: 'at amperes', usual: '3' },
}

const testForm = z
  .object({
    kind: z.enum(BENCH_TEST_KINDS, { error: 'Choose a test.' }),
    from: portField('Choose the port of the host end.'),
    to: portField('Choose the port of the far end.'),
    figure: z.string().max(60).optional(),
  })
  .transform(({ kind, from, to, figure }, context) => {
    const ends = { from: addressFrom(from), to: addressFrom(to) }
    const text = figure?.trim() || testFigures[kind]?.usual || ''
    const wrong = (message: string) => {
      context.addIssue({ code: 'custom', path: ['figure'], message })
      return z.NEVER
    }
    switch (kind) {
      case 'link': {
        const soak = Number(text)
        if (!Number.isInteger(soak) || soak < 0 || soak > 864_000) return wrong('Give whole seconds; 0 for no soak.')
        return { kind, ...ends, soak }
      }
      case 'picture': {
        const mode = parsePictureMode(text)
        return mode.ok ? { kind, ...ends, mode: mode.value } : wrong(mode.problem)
      }
      case 'volts lost': {
        const amps = Number(text.replace(',', '.'))
        if (!(amps >= 0.1 && amps <= 5)) return wrong('Amperes lie between 0.1 and 5.')
        return { kind, ...ends, amps }
      }
      default:
        return { kind, ...ends }
    }
  })

export const sessionFormSchema = z.object({
  name: z.string({ error: 'Give the session a name.' }).pipe(nameField),
  cables: z
    .array(z.string().max(64), { error: 'Choose at least one cable.' })
    .min(1, 'Choose at least one cable.')
    .max(MOST_TAGGED, `A session takes at most ${MOST_TAGGED} cables.`),
  tests: z
    .array(testForm, { error: 'Add at least one test.' })
    .min(1, 'Add at least one test.')
    .max(12, 'A session has at most twelve tests.'),
})

export type SessionFormTexts = {
  name: string
  cables: string[]
  tests: { kind: string; from: string; to: string; figure: string }[]
}

export const textsOfTest = (test: BenchTest): SessionFormTexts['tests'][number] => ({
  kind: test.kind,
  from: `${test.from.device}/${test.from.port}`,
  to: `${test.to.device}/${test.to.port}`,
  figure:
    test.kind === 'link'
      ? String(test.soak)
      : test.kind === 'picture'
        ? formatPictureMode(test.mode)
        : test.kind === 'volts lost'
          ? String(test.amps)
          : '',
})
