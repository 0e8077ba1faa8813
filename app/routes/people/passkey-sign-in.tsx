import { Box } from '@chakra-ui/react'
import { type PublicKeyCredentialRequestOptionsJSON, startAuthentication } from '@simplewebauthn/browser'
import { Notice, QuietButton } from '../../ui/controls'
import { usePasskey } from './use-passkey'

/** The way in for whoever has a passkey: no name and no password to type. Shown where the browser can. */
export function PasskeySignIn({ to }: { to: string }) {
  const { can, busy, problem, go } = usePasskey<PublicKeyCredentialRequestOptionsJSON, { to: string }>(
    '/sign-in/passkey',
    (optionsJSON) => startAuthentication({ optionsJSON }),
  )
  if (!can) return null
  const signIn = async () => {
    const done = await go({ to })
    if (done) window.location.assign(done.to)
  }
  return (
    <Box mt="5">
      {problem && <Notice tone="blocked">{problem}</Notice>}
      <QuietButton type="button" loading={busy} onClick={signIn}>
        Sign in with a passkey
      </QuietButton>
    </Box>
  )
}
