import { Link as RouterLink } from 'react-router'
import text from '../../theme/text.module.css'
import { useSite } from '../../ui/site-context'

/** From each page of Order to the others. */
export function OrderLinks() {
  const { plan } = useSite()
  const home = `/sites/${plan.site.id}`
  const links = [
    [`${home}/order`, 'Decide'],
    [`${home}/orders`, 'Orders'],
    [`${home}/suppliers`, 'Suppliers'],
    [`${home}/listing`, 'Read a listing'],
    [`${home}/drawer/catalogue`, 'Catalogue'],
  ] as const
  return (
    <>
      {links.map(([to, words]) => (
        <RouterLink key={to} to={to} className={text.link}>
          {words}
        </RouterLink>
      ))}
    </>
  )
}
