import { Box, Flex, Heading, Text } from '@chakra-ui/react'
import { type PublicKeyCredentialCreationOptionsJSON, startRegistration } from '@simplewebauthn/browser'
import { useState } from 'react'
import { useRevalidator } from 'react-router'
import type { ListedPasskey } from '../../../server/people/passkeys'
import text from '../../theme/text.module.css'
import { Notice, QuietButton } from '../../ui/controls'
import { plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import { RuledTable } from '../../ui/ruled-table'
import { OnCards } from './on-cards'
import { usePasskey } from './use-passkey'

type Passkeys = {
  passkeys: readonly ListedPasskey[]
  /** Whether browsers keep passkeys for this Hallway, under the name by which it is open. */
  here: boolean
}

/** What somebody comes in with instead of a password, and one more of them. */
export function PasskeysView({ passkeys, here }: Passkeys) {
  const [name, setName] = useState('')
  const [added, setAdded] = useState(false)
  const { revalidate } = useRevalidator()
  const { can, busy, problem, go } = usePasskey<PublicKeyCredentialCreationOptionsJSON, { problem: null }>(
    '/account/passkeys',
    (optionsJSON) => startRegistration({ optionsJSON }),
  )
  const add = async () => {
    setAdded(false)
    if (!(await go({ name }))) return
    setAdded(true)
    setName('')
    await revalidate()
  }
  return (
    <>
      <Heading as="h2" size="lg" mt="7" mb="2">
        Passkeys
      </Heading>
      <Text mb="3">
        With a passkey you unlock your own device to sign in: a finger, a face or a PIN. No password to type.
      </Text>
      {passkeys.length > 0 && (
        <RuledTable label="Passkeys" cards columns={['Called', 'Since', 'Last used', '']}>
          {passkeys.map((each) => (
            <tr key={each.id}>
              <td className={text.strong}>{each.name}</td>
              <td>
                <OnCards>since</OnCards> <Moment at={each.made} />
              </td>
              <td>
                <OnCards>last used</OnCards> {each.used ? <Moment at={each.used} /> : 'never'}
              </td>
              <td>
                <Form method="post">
                  <input type="hidden" name="do" value="end passkey" />
                  <input type="hidden" name="passkey" value={each.id} />
                  <QuietButton small grave>
                    Take away
                  </QuietButton>
                </Form>
              </td>
            </tr>
          ))}
        </RuledTable>
      )}
      {problem && <Notice tone="blocked">{problem}</Notice>}
      {added && <Notice tone="clear">The passkey is kept. Sign in with it next time.</Notice>}
      {here && can ? (
        <Flex direction="column" gap="3" maxW="320px" mt="3">
          <TextField
            field={plainField('passkeyName')}
            label="What you call it"
            hint="The device it is on, for example: my phone"
            value={name}
            onChange={(event) => setName(event.target.value)}
            maxLength={120}
            autoComplete="off"
          />
          <Box>
            <QuietButton type="button" loading={busy} disabled={name.trim() === ''} onClick={add}>
              Add a passkey
            </QuietButton>
          </Box>
        </Flex>
      ) : (
        <Text color="quiet">
          {here
            ? 'This browser keeps no passkeys.'
            : 'Browsers keep no passkeys for an address of numbers. Open Hallway by its name to add one.'}
        </Text>
      )}
    </>
  )
}
