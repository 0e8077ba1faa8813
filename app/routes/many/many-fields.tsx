import type { ManyAction } from '../../../core/change/changes/many'
import { Labelled, PlainInput, PlainSelect, plainField } from '../../ui/field'
import { takesLength } from '../../ui/keep-typed-unit'
import { MainsField } from '../../ui/mains-field'
import { PriorityField } from '../../ui/priority-field'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import look from './many.module.css'

/** What has to be said for one sort of change. */
export function ManyFields({ what, fields }: { what: ManyAction['do']; fields: URLSearchParams }) {
  const { plan } = useSite()
  const unit = useUnit()
  const line = (name: string, label: string, placeholder?: string, more = {}) => (
    <Labelled label={label} flex="1 1 160px">
      <PlainInput
        name={name}
        defaultValue={fields.get(name) ?? ''}
        placeholder={placeholder}
        maxLength={2000}
        {...more}
      />
    </Labelled>
  )
  switch (what) {
    case 'rename':
      return (
        <div className={look.fields}>
          {line('find', 'Find', 'Desk 1')}
          {line('replace', 'Put in its place', 'Desk 01')}
        </div>
      )
    case 'note':
      return <div className={look.fields}>{line('note', 'Note, empty to remove it')}</div>
    case 'length':
      return (
        <div className={look.fields}>
          {line('length', 'Route length', unit === 'm' ? '2.5 m' : '8 ft', takesLength)}
        </div>
      )
    case 'size':
      return <div className={look.fields}>{line('size', 'Size', '3840x2160@60')}</div>
    case 'shift':
      return (
        <div className={look.fields}>
          {line('right', `Right by, ${unit}`, '1.5', takesLength)}
          {line('down', `Down by, ${unit}`, '0', takesLength)}
        </div>
      )
    case 'mains':
      return (
        <div className={look.fields}>
          <MainsField mains={true} />
        </div>
      )
    case 'priority':
      return (
        <div className={look.fields}>
          <PriorityField field={plainField('priority', fields.get('priority') ?? '')} label="Served" />
        </div>
      )
    case 'move':
      return (
        <div className={look.fields}>
          <Labelled label="To the place" flex="1 1 160px">
            <PlainSelect name="place" defaultValue={fields.get('place') ?? ''}>
              <option value="">choose</option>
              {plan.places.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </PlainSelect>
          </Labelled>
        </div>
      )
    case 'delete':
      return null
  }
}
