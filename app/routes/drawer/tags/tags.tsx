import { Box, Flex, Grid, Link, Text } from '@chakra-ui/react'
import { Link as RouterLink, useSubmit } from 'react-router'
import { LABEL_SIZES } from '../../../../core/tags/label'
import { QuietButton } from '../../../ui/controls'
import { Labelled, PlainInput, PlainSelect } from '../../../ui/field'
import { Form } from '../../../ui/form'
import { useSite } from '../../../ui/site-context'
import type { Route } from './+types/tags'
import { TagPdf } from './tag-pdf'
import { addressAsked, idsAsked, sizeAsked } from './tags-request.server'

export function loader({ request }: Route.LoaderArgs) {
  const { searchParams, origin } = new URL(request.url)
  const refused = searchParams.has('address') && addressAsked(searchParams) === null
  return {
    ids: idsAsked(searchParams),
    size: sizeAsked(searchParams).id,
    address: addressAsked(searchParams) ?? origin,
    refused,
  }
}

/** Tags for both ends of the chosen cables: as they will print, and as files for the printer. */
export default function Tags({ loaderData }: Route.ComponentProps) {
  const { plan } = useSite()
  const submit = useSubmit()
  const { ids, size, address, refused } = loaderData
  const known = new Set(plan.cables.map((cable) => cable.id))
  const count = ids.filter((id) => known.has(id)).length
  const home = `/sites/${plan.site.id}/drawer`
  if (count === 0)
    return (
      <Text>
        Choose cables in the{' '}
        <Link asChild color="brassInk" textDecoration="underline">
          <RouterLink to={home}>list</RouterLink>
        </Link>{' '}
        first, then “Print tags”.
      </Text>
    )
  const query = new URLSearchParams({ cables: ids.join(' '), size, address })
  const labelSize = LABEL_SIZES.find(({ id }) => id === size) ?? LABEL_SIZES[0]
  const each = labelSize ? labelSize.sheet.columns * labelSize.sheet.rows : 1
  const sheets = Math.ceil((count * 2) / each)
  return (
    <>
      <Form method="get" onChange={(event) => submit(event.currentTarget, { replace: true })}>
        <input type="hidden" name="cables" value={ids.join(' ')} />
        <Grid templateColumns={{ base: '1fr', md: '300px 300px auto' }} gap="4" alignItems="end" mb="2">
          <Labelled label="Labels">
            <PlainSelect name="size" defaultValue={size}>
              {LABEL_SIZES.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </PlainSelect>
          </Labelled>
          <Labelled label="Their codes open Hallway at">
            <PlainInput
              mono
              name="address"
              type="url"
              defaultValue={address}
              maxLength={120}
              aria-describedby="address-hint"
            />
          </Labelled>
          <Flex gap="3">
            <TagPdf key={String(query)} address={`${home}/tags.pdf?${query}`} sheets={sheets} />
            <noscript>
              <QuietButton>Show</QuietButton>
            </noscript>
          </Flex>
        </Grid>
        <Text id="address-hint" fontSize="sm" color={refused ? 'blocked' : 'quiet'} mb="4">
          {refused
            ? 'That is not a web address, so the one of this page was taken.'
            : 'Give the name that phones in the building reach; on this machine alone 127.0.0.1 does.'}
        </Text>
      </Form>
      <Text mb="3">
        {count} {count === 1 ? 'cable' : 'cables'}, both ends: {count * 2} labels on {sheets}{' '}
        {sheets === 1 ? 'sheet' : 'sheets'}.
      </Text>
      {Array.from({ length: Math.min(sheets, SHEETS_SHOWN) }, (_, at) => {
        const source = `${home}/tags.svg?${query}&sheet=${at + 1}`
        return (
          <Box key={source} mb="5" maxW="760px">
            <Box bg="white" border="1px solid" borderColor="line">
              <img src={source} alt={`Sheet ${at + 1} of ${sheets}`} style={{ width: '100%' }} loading="lazy" />
            </Box>
            <Link
              href={source}
              download={`cable-tags-${at + 1}.svg`}
              fontSize="sm"
              color="brassInk"
              textDecoration="underline"
            >
              Sheet {at + 1} as SVG
            </Link>
          </Box>
        )
      })}
      {sheets > SHEETS_SHOWN && <Text color="quiet">and {sheets - SHEETS_SHOWN} more in the PDF</Text>}
    </>
  )
}

const SHEETS_SHOWN = 3
