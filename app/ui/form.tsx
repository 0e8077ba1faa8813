import type { ComponentProps } from 'react'
import { Form as RouterForm } from 'react-router'
import type { Right } from '../../core/people/rights'
import look from './form.module.css'
import { useMay } from './may'

/** A form of a page. What changes something can be read by whoever may not, and cannot be sent. `needs` says who may. */
export function Form({ needs = 'work', children, ...rest }: ComponentProps<typeof RouterForm> & { needs?: Right }) {
  const may = useMay(needs)
  const works = useMay('work')
  if (rest.method !== 'post' || may) return <RouterForm {...rest}>{children}</RouterForm>
  return (
    <RouterForm {...rest}>
      {works && <p className={look.why}>Only whoever leads this site may change this.</p>}
      <fieldset disabled className={look.locked}>
        {children}
      </fieldset>
    </RouterForm>
  )
}
