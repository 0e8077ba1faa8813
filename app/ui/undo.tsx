import { Flex, Text } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { ChangeId } from './change-fields'
import { QuietButton } from './controls'
import { Form } from './form'
import { useSite } from './site-context'
import { useShownHere } from './undoing'

/** What was done, with a way to take it back. `change` is its id in the history; `back` is where to go when it is undone. */
export function Undo({ change, back, children }: { change: string; back: string; children: ReactNode }) {
  const { plan } = useSite()
  useShownHere(change)
  return (
    <Form method="post" action={`/sites/${plan.site.id}/history`} preventScrollReset>
      <Flex align="center" gap="4">
        <Text>{children}</Text>
        <input type="hidden" name="undo" value={change} />
        <input type="hidden" name="back" value={back} />
        <ChangeId />
        <QuietButton>Undo</QuietButton>
      </Flex>
    </Form>
  )
}
