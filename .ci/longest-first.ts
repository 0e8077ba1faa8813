import { BaseSequencer, type TestSpecification } from 'vitest/node'

/** Files that take longest, each because it starts Hallway from nothing, stops it or sends whatever there is to send; the size of a file does not tell. */
const LONGEST = ['start', 'people', 'edge', 'forms', 'running', 'actors']

const rank = ({ moduleId }: TestSpecification): number => {
  const at = LONGEST.findIndex((name) => moduleId.endsWith(`/tests/command/${name}.test.ts`))
  return at === -1 ? LONGEST.length : at
}

/** What takes longest begins first, so that no worker waits for it at the end; the others as Vitest orders them. */
export class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files)
    return sorted.toSorted((one, other) => rank(one) - rank(other))
  }
}
