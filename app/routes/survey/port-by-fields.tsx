import { type ReactNode, useState } from 'react'
import { CONNECTORS, connectorNames } from '../../../core/standards/connectors'
import { parsePortLine } from '../../../core/survey/port-line'
import { PORT_SITES } from '../../../core/vocabulary/device'
import text from '../../theme/text.module.css'
import { QuietButton } from '../../ui/controls'
import { LabelledField, PlainInput, PlainSelect, plainField } from '../../ui/field'
import look from './survey.module.css'

/** The words of a line that each choice stands for, and what they mean. */
const DATA: readonly (readonly [string, string])[] = [
  ['', 'none'],
  ['power-only', 'none: power only'],
  ['usb2', 'USB 2.0'],
  ['5g', 'USB 5 Gb/s'],
  ['10g', 'USB 10 Gb/s'],
  ['20g', 'USB 20 Gb/s'],
  ['usb4-40', 'USB4 40 Gb/s'],
  ['tb3', 'Thunderbolt 3'],
  ['tb4', 'Thunderbolt 4'],
  ['tb5', 'Thunderbolt 5'],
]
const PICTURE: readonly (readonly [string, string])[] = [
  ['', 'none, or as its connector has it'],
  ['dp1.2', 'DisplayPort 1.2'],
  ['dp1.4', 'DisplayPort 1.4'],
  ['dp2.1', 'DisplayPort 2.1'],
  ['1.4', 'HDMI 1.4'],
  ['2.0', 'HDMI 2.0'],
  ['2.1', 'HDMI 2.1'],
]
const DIRECTIONS = ['', 'out', 'in'] as const
const ROLES = ['', 'host', 'device'] as const

const empty = {
  name: '',
  count: '1',
  connector: 'type-c',
  own: '',
  gender: '',
  data: '',
  role: '',
  picture: '',
  direction: '',
  gives: '',
  takes: '',
  sits: '',
  controller: '',
  captive: '',
  accepts: '',
}
type Fields = typeof empty

const watts = (word: string, value: string): string => (value.trim() === '' ? '' : `${word} ${value.trim()}W`)

/** The line that the fields say, as somebody would type it. */
function lineOf(fields: Fields): string {
  const {
    name,
    count,
    connector,
    own,
    gender,
    data,
    role,
    picture,
    direction,
    gives,
    takes,
    sits,
    controller,
    captive,
    accepts,
  } = fields
  const words = [
    connector === 'own' ? `own-${own.trim().replaceAll(' ', '_') || 'plug'}` : connector,
    gender,
    // a generation of HDMI follows its connector
    picture,
    data,
    role,
    direction,
    watts('gives', gives),
    watts('takes', takes),
    gender === 'plug' && captive.trim() && `captive-${captive.trim().replaceAll(' ', '')}`,
    takes.trim() && accepts.trim() && `accepts-${accepts.replace(/[^\d.,]/g, '')}V`,
    sits && `on-${sits.replace(' ', '-')}`,
    controller.trim() && `@${controller.trim().replaceAll(' ', '_')}`,
  ]
  const said = words.filter(Boolean).join(' ')
  const many = Number(count) > 1 ? `${count}x ` : ''
  return name.trim() ? `${name.trim()}: ${many}${said}` : `${many}${said}`
}

/** A port put together from fields, for whoever does not know the words: it becomes a line like any other. */
export function PortByFields({ add }: { add: (line: string) => void }) {
  const [fields, setFields] = useState<Fields>(empty)
  const line = lineOf(fields)
  const read = parsePortLine(line)
  const put = (name: keyof Fields) => ({
    id: `port-${name}`,
    value: fields[name],
    onChange: ({ currentTarget }: { currentTarget: { value: string } }) =>
      setFields({ ...fields, [name]: currentTarget.value }),
  })
  const field = (name: keyof Fields, label: string, control: ReactNode) => (
    <LabelledField field={{ ...plainField(name), id: `port-${name}` }} label={label}>
      {control}
    </LabelledField>
  )
  const select = (name: keyof Fields, label: string, options: readonly (readonly [string, string])[]) =>
    field(
      name,
      label,
      <PlainSelect {...put(name)}>
        {options.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </PlainSelect>,
    )
  const plainly = (values: readonly string[]) => values.map((value) => [value, value || 'not said'] as const)
  return (
    <details className={look.byFields}>
      <summary>or put a port together from fields</summary>
      <div className={look.fields}>
        {field('name', 'Port name', <PlainInput {...put('name')} maxLength={60} />)}
        {field('count', 'How many alike', <PlainInput {...put('count')} type="number" min={1} max={16} />)}
        {select(
          'connector',
          'Connector',
          CONNECTORS.map((each) => [each, connectorNames[each]] as const),
        )}
        {fields.connector === 'own' &&
          field('own', 'The plug is called', <PlainInput {...put('own')} maxLength={40} />)}
        {select('gender', 'Socket or plug', [
          ['', 'socket'],
          ['plug', 'plug, of a captive lead'],
        ])}
        {fields.gender === 'plug' &&
          field(
            'captive',
            'Length of the captive lead',
            <PlainInput {...put('captive')} placeholder="1.5m" maxLength={12} />,
          )}
        {select('data', 'Data', DATA)}
        {select('role', 'End of a USB link', plainly(ROLES))}
        {select('picture', 'Picture', PICTURE)}
        {select('direction', 'Pictures go', plainly(DIRECTIONS))}
        {field('gives', 'Gives, W', <PlainInput {...put('gives')} inputMode="decimal" maxLength={6} />)}
        {field('takes', 'Takes, W', <PlainInput {...put('takes')} inputMode="decimal" maxLength={6} />)}
        {fields.takes.trim() !== '' &&
          field(
            'accepts',
            'Voltages it takes, if not all',
            <PlainInput {...put('accepts')} placeholder="5, 9, 20" maxLength={30} />,
          )}
        {select('sits', 'Where it sits', plainly(['', ...PORT_SITES]))}
        {field('controller', 'Controller', <PlainInput {...put('controller')} maxLength={60} />)}
      </div>
      <p className={read.ok ? text.small : `${text.small} ${text.warn}`} role="status">
        <span className={text.mono}>{line}</span> {read.ok ? '' : read.problem}
      </p>
      <QuietButton
        type="button"
        small
        disabled={!read.ok}
        onClick={() => {
          add(line)
          setFields(empty)
        }}
      >
        Add the port
      </QuietButton>
    </details>
  )
}
