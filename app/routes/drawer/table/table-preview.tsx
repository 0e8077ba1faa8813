import { Box, Grid, Text } from '@chakra-ui/react'
import type { ChangeEvent } from 'react'
import { CABLE_COLUMNS, NEEDED_COLUMNS, type Settling } from '../../../../core/drawer/cable-table'
import { endText } from '../../../../core/drawer/end-text'
import { CONNECTORS, describeEnd, GENDERS } from '../../../../core/standards/connectors'
import { CABLE_GRADES, gradeFacts } from '../../../../core/standards/grades'
import { POWER_MARKS } from '../../../../core/standards/mark-text'
import { type Chosen, chosenFrom, controlOf, type Preview, SETTLE } from '../../../csv/preview'
import text from '../../../theme/text.module.css'
import { PlainSelect } from '../../../ui/field'
import { RuledTable } from '../../../ui/ruled-table'
import { Length } from '../../../ui/units'

type Choose = (chosen: Chosen) => void

/** Reads the whole form again once something in it is chosen otherwise. */
const chosenAnew =
  (choose: Choose) =>
  ({ currentTarget: { form } }: ChangeEvent<HTMLSelectElement>): void => {
    if (form) choose(chosenFrom(new FormData(form)))
  }

/** Which column of the file holds what: guessed from its headers, and the person's to change. */
export function ColumnChoice({ preview, choose }: { preview: Preview; choose: Choose }) {
  const { headers, mapping } = preview
  return (
    <Box as="fieldset" border="1px solid" borderColor="line" borderRadius="2px" px="4" pb="4" bg="card">
      <Box as="legend" fontWeight="700" px="1">
        What each column of the file holds
      </Box>
      <Grid templateColumns={{ base: '1fr 1fr', md: 'repeat(4, 1fr)', xl: 'repeat(5, 1fr)' }} gap="3">
        {CABLE_COLUMNS.map((column) => {
          const needed = NEEDED_COLUMNS.includes(column)
          const missing = needed && mapping[column] === undefined
          return (
            <Box as="label" key={column} fontSize="sm">
              <Box as="span" fontWeight="600" color={missing ? 'blocked' : undefined} textTransform="capitalize">
                {column}
                {missing ? ' (needed)' : needed ? ' *' : ''}
              </Box>
              <PlainSelect
                name={controlOf(column)}
                value={mapping[column] ?? ''}
                aria-invalid={missing ? true : undefined}
                onChange={chosenAnew(choose)}
              >
                <option value="">not in the file</option>
                {headers.map((header, at) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: a column is its place; two may bear one name
                  <option key={at} value={at}>
                    {header || `column ${at + 1}`}
                  </option>
                ))}
              </PlainSelect>
            </Box>
          )
        })}
      </Grid>
    </Box>
  )
}

const more = (count: number, shown: number) =>
  count > shown ? (
    <Text fontSize="sm" color="quiet" mt="1">
      and {(count - shown).toLocaleString('en')} more
    </Text>
  ) : null

const meanings: Record<Settling['column'], readonly { as: string; words: string }[]> = {
  end: CONNECTORS.filter((connector) => connector !== 'own').flatMap((connector) =>
    GENDERS.toReversed().map((gender) => ({
      as: endText({ connector, gender }),
      words: describeEnd({ connector, gender }),
    })),
  ),
  mark: [
    { as: 'unknown', words: 'nobody knows' },
    { as: 'unmarked', words: 'no mark on it' },
    ...CABLE_GRADES.map((grade) => ({ as: grade, words: gradeFacts[grade].name })),
  ],
  power: [
    { as: 'unknown', words: 'nobody knows' },
    ...POWER_MARKS.map((mark) => ({ as: mark, words: mark === 'none' ? 'no power wires' : mark })),
  ],
}

/** Words that Hallway could not read, each asked once for all the rows that have it. */
export function UnreadWords({
  preview: { unread },
  settled,
  choose,
}: {
  preview: Preview
  settled: Chosen['settled']
  choose: Choose
}) {
  const asked: Settling[] = [...settled, ...unread.slice(0, MOST_WORDS).map((word) => ({ ...word, as: '' }))]
  if (asked.length === 0) return null
  return (
    <Box mt="4">
      <Text fontWeight="600" mb="1">
        Words Hallway does not know. Say once what each means:
      </Text>
      <RuledTable label="Words that could not be read" columns={['Word', 'Stands for', 'Rows', 'Take it as']}>
        {asked.map(({ column, text: word, as }) => (
          <tr key={`${column} ${word}`}>
            <td className={text.mono}>{word}</td>
            <td>{column === 'end' ? 'an end' : `a ${column === 'power' ? 'power mark' : 'mark'}`}</td>
            <td>{unread.find((each) => each.column === column && each.text === word)?.rows ?? ''}</td>
            <td>
              <input type="hidden" name={SETTLE.column} value={column} />
              <input type="hidden" name={SETTLE.text} value={word} />
              <PlainSelect
                name={SETTLE.as}
                aria-label={`Take ${word} as`}
                defaultValue={as}
                onChange={chosenAnew(choose)}
              >
                <option value="">not settled</option>
                {meanings[column].map((each) => (
                  <option key={each.as} value={each.as}>
                    {each.words}
                  </option>
                ))}
              </PlainSelect>
            </td>
          </tr>
        ))}
      </RuledTable>
      {more(unread.length, MOST_WORDS)}
    </Box>
  )
}
const MOST_WORDS = 30

/** Rows that cannot come in, each with its line in the file and every reason. */
export function BadRows({ preview: { bad } }: { preview: Preview }) {
  return (
    <>
      <RuledTable
        label="Rows that cannot come in"
        columns={['Line', 'What is wrong', 'The row']}
        maxH="300px"
        tone="blocked"
      >
        {bad.first.map((row) => (
          <tr key={row.line}>
            <td className={text.mono}>{row.line}</td>
            <td>
              {row.problems.map((problem) => (
                <Box key={problem}>{problem}</Box>
              ))}
            </td>
            <td className={`${text.mono} ${text.tiny} ${text.quiet} ${text.anywhere}`}>
              {row.cells.join(' · ').slice(0, 200)}
            </td>
          </tr>
        ))}
      </RuledTable>
      {more(bad.count, bad.first.length)}
    </>
  )
}

/** The first rows as cables, so that a wrong column shows before anything is written. */
export function GoodRows({ preview: { good } }: { preview: Preview }) {
  return (
    <>
      <RuledTable
        label="Rows that can come in"
        columns={['Line', 'Tag', 'Ends', 'Length', 'Mark', 'Built', 'Note']}
        maxH="320px"
      >
        {good.first.map(({ line, cable, marks }) => {
          const grade = marks[0]?.grade
          return (
            <tr key={line}>
              <td className={`${text.mono} ${text.quiet}`}>{line}</td>
              <td className={`${text.mono} ${text.strong}`}>{cable.tag}</td>
              <td>{cable.ends.map(describeEnd).join(cable.oneWay ? ' → ' : ' – ')}</td>
              <td>
                <Length metres={cable.length} />
              </td>
              <td>{grade ? gradeFacts[grade].name : ''}</td>
              <td>{cable.construction}</td>
              <td className={text.anywhere}>{cable.note}</td>
            </tr>
          )
        })}
      </RuledTable>
      {more(good.count, good.first.length)}
    </>
  )
}
