import type { FormEvent, ReactNode } from 'react'
import { MadeFrom } from '../../ui/change-fields'
import { Form } from '../../ui/form'

export type Sends = { send: (form: FormData) => void; busy: boolean }

/** A form of the page: sent as one change that can be undone here, and by itself where there are no scripts. */
export function PanelForm({ send, children }: { send: Sends['send']; children: ReactNode }) {
  const submitted = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    send(new FormData(event.currentTarget, (event.nativeEvent as SubmitEvent).submitter))
  }
  return (
    <Form method="post" encType="multipart/form-data" onSubmit={submitted}>
      <MadeFrom />
      {children}
    </Form>
  )
}

/** A figure as a field shows it; nothing where there is none. */
export const numberText = (value: number | undefined): string => (value === undefined ? '' : String(value))
