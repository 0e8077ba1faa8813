import { isOpeningAnew } from '../open-anew'
import { typeInto } from '../ui/type-into'

/** What somebody typed on a page and has not saved, while the page is opened anew. */
type Draft = { page: string; fields: readonly Typed[] }
/** A field by where it stands: the number of its form, its name, and its number among the fields of that name. */
type Typed = { form: number; name: string; at: number; value: string; checked?: boolean }
type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement

const KEPT = 'hallway-draft'
/** Longer than this nobody types by hand; it is in a file. */
const LONGEST = 200_000

const isField = (target: EventTarget | null): target is Field =>
  target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement

const fieldsOf = (form: HTMLFormElement, name: string): Field[] =>
  [...form.elements].filter((each): each is Field => isField(each) && each.name === name)

/** A form whose sending is a save, and that is still on the page. */
const isOpen = (field: Field): boolean => field.isConnected && field.form?.method === 'post'

const touched = new Set<Field>()
const unsaved = new Set<Field>()
let sending = false

/** A form that was refused still wants an answer. */
const isRefused = (field: Field): boolean =>
  isOpen(field) && field.form?.querySelector('[aria-invalid="true"]') !== null

/** Something was typed on this page and not saved. */
export const hasUnsaved = (): boolean => [...unsaved].some(isOpen) || [...touched].some(isRefused)

/** The page changes because a form was sent, and not because somebody leaves it. */
export const isSending = (): boolean => sending

/** What was typed so far is given up. */
export function giveUpDrafts(): void {
  touched.clear()
  unsaved.clear()
}

/**
 * Keeps what is typed into the forms of a page over a reload, in this tab, and knows what of it is not saved. A form that was saved is made anew by its page, and its old fields are no longer
 * there to be kept; one that was refused still has them.
 */
export function keepDrafts(): void {
  document.addEventListener('input', ({ target }) => {
    if (!isField(target) || !target.name || target.type === 'file') return
    touched.add(target)
    // what is only ticked, to do something with it, is soon ticked again
    if (!target.closest('[data-ticks]')) unsaved.add(target)
  })
  document.addEventListener(
    'submit',
    ({ target }) => {
      for (const field of unsaved) if (field.form === target) unsaved.delete(field)
      sending = true
      setTimeout(() => {
        sending = false
      })
    },
    true,
  )
  window.addEventListener('beforeunload', (event) => {
    if (hasUnsaved() && !isOpeningAnew()) event.preventDefault()
  })
  window.addEventListener('pagehide', () => {
    const fields = [...touched].flatMap((field): Typed | [] => {
      const { form } = field
      if (!form || !isOpen(field)) return []
      const checked = field instanceof HTMLInputElement && /^(checkbox|radio)$/.test(field.type) ? field.checked : null
      return {
        form: [...document.forms].indexOf(form),
        name: field.name,
        at: fieldsOf(form, field.name).indexOf(field),
        value: field.value,
        ...(checked === null ? {} : { checked }),
      }
    })
    const draft = JSON.stringify({ page: location.pathname, fields } satisfies Draft)
    if (fields.length > 0 && draft.length <= LONGEST) sessionStorage.setItem(KEPT, draft)
    else sessionStorage.removeItem(KEPT)
  })
}

/** Puts back what was typed before this page was opened anew; called once scripts have taken the page over. */
export function restoreDraft(): void {
  const text = sessionStorage.getItem(KEPT)
  sessionStorage.removeItem(KEPT)
  const [navigation] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[]
  if (text === null || navigation?.type !== 'reload') return
  const { page, fields } = JSON.parse(text) as Draft
  if (page !== location.pathname) return
  for (const { form, name, at, value, checked } of fields) {
    const owner = document.forms[form]
    const field = owner && fieldsOf(owner, name)[at]
    if (field) putBack(field, value, checked)
  }
}

function putBack(field: Field, value: string, checked: boolean | undefined): void {
  if (checked === undefined) {
    if (field.value !== value) typeInto(field, value)
  } else if (field instanceof HTMLInputElement && field.checked !== checked) field.click()
}
