import { data } from 'react-router'
import { type FormTakes, type SentFile, withSentForm } from '../server/web/sent-form'

/** The form that was sent, where it can be one of ours and brings no file. Throws in words what it cannot be. */
export const readForm = (request: Request, takes: Omit<FormTakes, 'file'> = {}): Promise<FormData> =>
  withSentForm(request, takes, async (sent) => {
    if ('problem' in sent) throw data(sent.problem, { status: sent.status })
    return sent.form
  })

/** The same for a form that may bring a file. The file is there until `use` is done; the form holds its sum where the file was. */
export const readFormWithFile = <T>(
  request: Request,
  takes: FormTakes & { file: number },
  use: (form: FormData, file: SentFile | null) => Promise<T>,
): Promise<T> =>
  withSentForm(request, takes, async (sent) => {
    if ('problem' in sent) throw data(sent.problem, { status: sent.status })
    return use(sent.form, sent.file)
  })
