import { cables } from './lists/cables'
import { devices } from './lists/devices'
import { floors } from './lists/floors'
import { handovers } from './lists/handovers'
import { kinds } from './lists/kinds'
import { needs } from './lists/needs'
import { observations } from './lists/observations'
import { offers } from './lists/offers'
import { orderLines } from './lists/order-lines'
import { orders } from './lists/orders'
import { pathways } from './lists/pathways'
import { places } from './lists/places'
import { runs } from './lists/runs'
import { searches } from './lists/searches'
import { sessions } from './lists/sessions'
import { soaks } from './lists/soaks'
import { suppliers } from './lists/suppliers'
import { upgrades } from './lists/upgrades'

/** The lists of a plan, each of entities with ids, in the order in which a file holds them. */
export const planLists = {
  floors,
  places,
  pathways,
  devices,
  kinds,
  cables,
  runs,
  needs,
  upgrades,
  suppliers,
  offers,
  orders,
  orderLines,
  sessions,
  soaks,
  searches,
  handovers,
  observations,
}
export type PlanList = keyof typeof planLists
export const PLAN_LISTS = Object.keys(planLists) as PlanList[]
