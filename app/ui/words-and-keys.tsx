import { useRef, useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { KEYS, WORDS } from '../../core/words/word-list'
import text from '../theme/text.module.css'
import { QuietButton } from './controls'
import look from './frame.module.css'
import { RuledTable } from './ruled-table'
import { useShortcut } from './shortcut'

/** What the words of Hallway mean, and what its keys do. */
export function WordsAndKeys() {
  return (
    <>
      <RuledTable label="Words" columns={['Word', 'What it means here']}>
        {WORDS.map(({ word, means }) => (
          <tr key={word}>
            <th scope="row">{word}</th>
            <td>{means}</td>
          </tr>
        ))}
      </RuledTable>
      <RuledTable label="Keys" columns={['Key', 'Where', 'What it does']}>
        {KEYS.map(({ keys, where, does }) => (
          <tr key={`${keys} ${where}`}>
            <th scope="row" className={text.mono}>
              {keys}
            </th>
            <td>{where}</td>
            <td>{does}</td>
          </tr>
        ))}
      </RuledTable>
    </>
  )
}

/** A question mark in the bar that shows both over the page, which keeps what was typed; without scripts it leads to them. */
export function WordsHelp() {
  const dialog = useRef<HTMLDialogElement>(null)
  // it is drawn once somebody asks for it
  const [asked, setAsked] = useState(false)
  const show = () => {
    setAsked(true)
    dialog.current?.showModal()
  }
  useShortcut('?', show)
  return (
    <>
      <RouterLink
        to="/words"
        className={`${look.control} ${look.mark}`}
        aria-keyshortcuts="?"
        onClick={(event) => {
          event.preventDefault()
          show()
        }}
      >
        ?<span className={text.hidden}> Words and keys</span>
      </RouterLink>
      <dialog ref={dialog} className={look.help} aria-label="Words and keys">
        <form method="dialog">
          <QuietButton small>Close</QuietButton>
        </form>
        {asked && <WordsAndKeys />}
      </dialog>
    </>
  )
}
