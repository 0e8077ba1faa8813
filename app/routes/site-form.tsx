import { Box, Heading } from '@chakra-ui/react'
import { useNavigation } from 'react-router'
import { revisionOf } from '../../core/change/change'
import { SITE_ID } from '../../core/change/copy'
import { MadeFrom } from '../ui/change-fields'
import { MainButton } from '../ui/controls'
import { Labelled, PlainInput } from '../ui/field'
import { Form } from '../ui/form'
import { useSite } from '../ui/site-context'
import { useKept } from '../ui/use-kept'

/** What a site is called, whether it is one to practise on, and whether it is put away. */
export function SiteForm() {
  const { plan, place, revisions } = useSite()
  const saving = useNavigation().state === 'submitting'
  const stamp = String(revisionOf({ revisions }, 'site', SITE_ID))
  const { made, behind, type, round } = useKept({ stamp, site: plan.site, place }, 'site')
  return (
    <Form method="post" needs="lead" key={round} onInput={type} aria-labelledby="the-site">
      <Heading as="h2" size="lg" id="the-site" mt="8" mb="2">
        The site itself
      </Heading>
      <input type="hidden" name="intent" value="site" />
      <MadeFrom base={behind ? made.place : place} />
      <Box display="grid" gap="3" mb="4">
        <Labelled label="Name">
          <PlainInput name="name" defaultValue={made.site.name} required maxLength={120} />
        </Labelled>
        <Labelled label="Note">
          <PlainInput name="note" defaultValue={made.site.note ?? ''} maxLength={2000} />
        </Labelled>
        <Tick name="practice" title="A site to practise on" checked={made.site.practice}>
          What simulated instruments say counts here. On a real site it is written down and counts for nothing.
        </Tick>
        <Tick name="putAway" title="Put away" checked={made.site.putAway}>
          Finished, and kept. It is listed apart; you can bring it back.
        </Tick>
      </Box>
      <MainButton loading={saving}>Save the site</MainButton>
    </Form>
  )
}

function Tick({ name, title, checked, children }: { name: string; title: string; checked: boolean; children: string }) {
  return (
    <Box as="label" display="flex" gap="3" cursor="pointer">
      <input type="checkbox" name={name} defaultChecked={checked} />
      <span>
        <b>{title}</b>
        <Box as="span" display="block" color="quiet" fontSize="sm">
          {children}
        </Box>
      </span>
    </Box>
  )
}
