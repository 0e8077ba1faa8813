import { type KeyboardEvent, useEffect, useId, useMemo, useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import look from './choice.module.css'
import { type Known, LabelledField, PlainSelect, tiedTo } from './field'
import fields from './field.module.css'

export type Option = { value: string; words: string }
export type OptionGroup = { label: string; options: readonly Option[] }

type Props = {
  field: Known
  label: string
  required?: boolean
  /** What stands there where nothing is chosen. */
  none: string
  /** How many options there are: among many one finds, among few one looks. */
  count: number
  /** All of them; only asked for where all are shown, or somebody looks for one. */
  groups: () => readonly OptionGroup[]
  /** One of them by its value, so that what is chosen can be told without making all the others. */
  one: (value: string) => Option | null
}

/** As many options as a page holds without being slow to open. */
const FEW = 120
/** So many matches are shown; whoever sees them all has typed too little to find any. */
const MOST_SHOWN = 60
const PUT = 'hallway:put'

/** A choice from a list with its label, hint and error: the browser's own control, with a box to find one in where there are many. */
export function ChoiceField(props: Props) {
  const { field, label, required, none, count, groups } = props
  return (
    <LabelledField field={field} label={label}>
      {count > FEW ? (
        <FoundChoice {...props} />
      ) : (
        <PlainSelect defaultValue={String(field.initialValue ?? '')} {...tiedTo({ field, required })}>
          <option value="">{none}</option>
          <Groups groups={groups()} />
        </PlainSelect>
      )}
    </LabelledField>
  )
}

/** The chosen one among what was looked for. What is not shown is not lost: the chosen one always stands there. */
function FoundChoice({ field, label, required, none, groups, one }: Props) {
  const id = useId()
  const select = useRef<HTMLSelectElement>(null)
  const [value, setValue] = useState(String(field.initialValue ?? ''))
  const [asked, setAsked] = useState('')
  const looking = asked.trim() !== ''
  const all = useMemo(() => (looking ? groups().map(searchable) : []), [looking, groups])
  const found = useMemo(() => matching(all, asked), [all, asked])
  const chosen = value === '' ? null : one(value)
  const take = (next: string) => {
    const control = select.current
    if (!control) return
    flushSync(() => {
      setValue(next)
      setAsked('')
    })
    control.value = next
    control.dispatchEvent(new Event('input', { bubbles: true }))
  }
  const latest = useRef(take)
  latest.current = take
  // another part of the page chooses here
  useEffect(() => {
    const control = select.current
    const put = (event: Event) => latest.current((event as CustomEvent<string>).detail)
    control?.addEventListener(PUT, put)
    return () => control?.removeEventListener(PUT, put)
  }, [])
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      const [first] = found.groups.flatMap(({ options }) => options)
      if (first) take(first.value)
    } else if (event.key === 'ArrowDown' && looking) select.current?.focus()
    else if (event.key === 'Escape') setAsked('')
    else return
    event.preventDefault()
  }
  return (
    <div className={look.choice}>
      <input
        type="search"
        className={fields.control}
        value={asked}
        onChange={(event) => setAsked(event.target.value)}
        // what is looked for is no part of the form
        onInput={(event) => event.stopPropagation()}
        onKeyDown={onKey}
        placeholder={chosen ? 'Find another' : 'Find one'}
        aria-label={`Find: ${label}`}
        aria-controls={field.id}
        aria-describedby={`${id}-count`}
        maxLength={120}
        autoComplete="off"
      />
      <PlainSelect
        ref={select}
        {...tiedTo({ field, required })}
        value={value}
        onChange={(event) => {
          setValue(event.target.value)
          setAsked('')
        }}
        size={looking ? Math.min(8, Math.max(2, found.shown + 1)) : undefined}
      >
        <option value="">{none}</option>
        {chosen && <option value={chosen.value}>{chosen.words}</option>}
        <Groups groups={found.groups} but={value} />
      </PlainSelect>
      <span id={`${id}-count`} className={look.count} aria-live="polite">
        {looking && (found.count === 0 ? 'No match.' : `${found.shown} of ${found.count} shown`)}
      </span>
    </div>
  )
}

function Groups({ groups, but }: { groups: readonly OptionGroup[]; but?: string }) {
  return groups.map(({ label, options }) => {
    const own = options
      .filter(({ value }) => value !== but)
      .map(({ value, words }) => (
        <option key={value} value={value}>
          {words}
        </option>
      ))
    return label === '' ? (
      own
    ) : (
      <optgroup key={label} label={label}>
        {own}
      </optgroup>
    )
  })
}

type Searchable = OptionGroup & { written: readonly string[] }
const searchable = (group: OptionGroup): Searchable => ({
  ...group,
  written: group.options.map(({ words }) => `${group.label} ${words}`.toLowerCase()),
})

/** The options in which every word that was typed appears, in the order of the list. */
function matching(all: readonly Searchable[], asked: string) {
  const words = asked.toLowerCase().split(' ').filter(Boolean)
  const groups: OptionGroup[] = []
  let count = 0
  let shown = 0
  for (const { label, options, written } of all) {
    const fitting = options.filter((_, at) => words.every((word) => written[at]?.includes(word)))
    count += fitting.length
    const some = fitting.slice(0, MOST_SHOWN - shown)
    shown += some.length
    if (some.length > 0) groups.push({ label, options: some })
  }
  return { groups, count, shown }
}

/** Chooses in a list from another part of the page. */
export function choose(select: HTMLSelectElement, value: string): void {
  if ([...select.options].some((option) => option.value === value)) {
    select.value = value
    select.dispatchEvent(new Event('input', { bubbles: true }))
    // for a list that follows what is chosen in it
    select.dispatchEvent(new Event('change', { bubbles: true }))
  } else select.dispatchEvent(new CustomEvent(PUT, { detail: value }))
}
