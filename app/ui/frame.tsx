import { ClientOnly } from '@chakra-ui/react'
import { useTheme } from 'next-themes'
import type { ReactNode } from 'react'
import { Link as RouterLink, useLocation } from 'react-router'
import text from '../theme/text.module.css'
import { Form } from './form'
import look from './frame.module.css'
import { keepTypedUnit } from './keep-typed-unit'
import { useShortcut } from './shortcut'
import { useUnit } from './units'
import { WhoLink } from './who'
import { WordsHelp } from './words-and-keys'

/** The bar across the top: where one is, and what holds everywhere. */
export function TopBar({ children }: { children?: ReactNode }) {
  return (
    <header className={look.bar}>
      <a href="#content" className={look.skip}>
        Skip to the page
      </a>
      <RouterLink to="/" className={look.home}>
        <svg width="20" height="24" viewBox="0 0 20 24" aria-hidden="true">
          <path d="M2 23V1h16v22" fill="none" stroke="currentColor" strokeWidth="2.5" />
          <path d="M2 1l10 5v17l-10 0z" fill="#D9A04A" />
        </svg>
        Hallway
      </RouterLink>
      <div className={look.within}>{children}</div>
      <div className={look.push} />
      <WhoLink />
      <WordsHelp />
      <UnitSwitch />
      <ClientOnly fallback={<div className={look.light} />}>
        <LightSwitch />
      </ClientOnly>
    </header>
  )
}

function UnitSwitch() {
  const unit = useUnit()
  const { pathname, search } = useLocation()
  useShortcut('u', () => document.getElementById('unit-switch')?.click())
  return (
    <Form method="post" action="/unit" preventScrollReset onSubmit={() => keepTypedUnit(unit)}>
      <input type="hidden" name="back" value={`${pathname}${search}`} />
      <button
        id="unit-switch"
        type="submit"
        name="unit"
        value={unit === 'm' ? 'ft' : 'm'}
        aria-keyshortcuts="u"
        aria-label={`Show ${unit === 'm' ? 'feet' : 'metres'}`}
        className={look.control}
        title="Press u to switch between metres and feet"
      >
        <span className={look.spare}>Show </span>
        {unit === 'm' ? 'feet' : 'metres'}
      </button>
    </Form>
  )
}

function LightSwitch() {
  const { resolvedTheme, setTheme } = useTheme()
  const dark = resolvedTheme === 'dark'
  return (
    <button type="button" onClick={() => setTheme(dark ? 'light' : 'dark')} className={`${look.control} ${look.light}`}>
      {dark ? 'Light' : 'Dark'}
      <span className={text.hidden}> colours</span>
    </button>
  )
}
