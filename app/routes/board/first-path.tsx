import type { ReactNode } from 'react'
import { Link as RouterLink } from 'react-router'
import { hasCatalogue } from '../../../core/drawer/has-catalogue'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { QuietButton } from '../../ui/controls'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import look from './first-path.module.css'

/** The steps of the first job on a site, with what is done ticked: shown until there are runs and needs to judge. */
export function FirstPath() {
  const { plan } = useSite()
  const home = `/sites/${plan.site.id}`
  const catalogued = hasCatalogue(plan)
  const steps: readonly { done: boolean; name: string; say: string; links: ReactNode }[] = [
    {
      done: plan.cables.length > 0,
      name: 'Drawer',
      say: 'The cables you have: import your list, or add them one by one.',
      links: (
        <>
          <Go to={`${home}/drawer/import`}>Import a list</Go>
          <Go to={`${home}/drawer/add`}>Add a cable</Go>
        </>
      ),
    },
    {
      done: catalogued,
      name: 'Catalogue',
      say: 'The kinds of cable you could buy. A ready one comes with Hallway; its prices are invented.',
      links: catalogued ? (
        <Go to={`${home}/drawer/catalogue`}>Look at it</Go>
      ) : (
        <Form method="post" action={`${home}/drawer/catalogue`} encType="multipart/form-data">
          <MadeFrom />
          <input type="hidden" name="back" value={home} />
          <QuietButton small name="intent" value="generic">
            Add the ready catalogue
          </QuietButton>
        </Form>
      ),
    },
    {
      done: plan.devices.length > 1,
      name: 'Survey',
      say: 'The places, and the devices there with their ports.',
      links: (
        <>
          <Go to={`${home}/survey`}>Add devices</Go>
          <Go to={`${home}/tables`}>Import tables</Go>
        </>
      ),
    },
    {
      done: plan.runs.length > 0,
      name: 'Runs',
      say: 'A run joins the ports of two devices. Say how long its route is, and which lead lies in it.',
      links: plan.devices.length > 1 ? <Go to={`${home}/runs/new`}>Lay the first run</Go> : 'after two devices',
    },
    {
      done: plan.needs.length > 0,
      name: 'Needs',
      say: 'What must get through: pictures, data, power. Then Match says which runs are clear, tight or blocked.',
      links: plan.runs.length > 0 ? <Go to={`${home}/needs/new`}>Add needs</Go> : 'after the first run',
    },
  ]
  const next = steps.find(({ done }) => !done)
  return (
    <ol className={look.path} aria-label="The first job, step by step">
      {steps.map(({ done, name, say, links }) => (
        <li key={name} className={look.step} data-done={done || undefined} data-next={name === next?.name || undefined}>
          <span className={look.tick} aria-hidden="true">
            {done ? '✓' : ''}
          </span>
          <span>
            <b>{name}</b>
            <span className={text.hidden}>{done ? ', done' : ', to do'}</span>
            <span className={text.block}>{say}</span>
          </span>
          <span className={look.links}>{links}</span>
        </li>
      ))}
    </ol>
  )
}

function Go({ to, children }: { to: string; children: ReactNode }) {
  return (
    <RouterLink to={to} className={text.link}>
      {children}
    </RouterLink>
  )
}
