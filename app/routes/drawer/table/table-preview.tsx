import { Box, Grid, Text } from '@chakra-ui/react'
import { CABLE_COLUMNS, NEEDED_COLUMNS } from '../../../../core/drawer/cable-table'
import { describeEnd } from '../../../../core/standards/connectors'
import { gradeFacts } from '../../../../core/standards/grades'
import { controlOf, mappingFrom, type Preview } from '../../../csv/preview'
import text from '../../../theme/text.module.css'
import { PlainSelect } from '../../../ui/field'
import { RuledTable } from '../../../ui/ruled-table'
import { Length } from '../../../ui/units'

/** Which column of the file holds what: guessed from its headers, and the person's to change. */
export function ColumnChoice({
  preview,
  choose,
}: {
  preview: Preview
  choose: (mapping: ReturnType<typeof mappingFrom>) => void
}) {
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
                onChange={(event) => {
                  const form = event.currentTarget.form
                  if (form) choose(mappingFrom(new FormData(form)) ?? {})
                }}
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
