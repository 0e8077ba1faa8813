/** A picture of each main view in docs/screenshots, and the address it is taken at; SITE is one of the demo's own that is made for it. */
export const PICTURES = {
  board: '/sites/saltmarsh',
  run: '/sites/saltmarsh/runs/r-09',
  survey: '/sites/saltmarsh/survey/image-a',
  floor: '/sites/saltmarsh/floors/ground?run=r-07&pathway=wheelhouse-conduit',
  walk: '/sites/saltmarsh/walk',
  needs: '/sites/saltmarsh/needs',
  need: '/sites/saltmarsh/needs/log-picture',
  reach: '/sites/saltmarsh/reach',
  policy: '/sites/saltmarsh/policy',
  drawer: '/sites/saltmarsh/drawer?job=type-C',
  cable: '/sites/saltmarsh/cables/c-0021',
  session: '/sites/saltmarsh/drawer/sessions/gallery-drawer',
  install: '/sites/saltmarsh/install',
  prove: '/sites/saltmarsh/prove/r-06',
  fault: '/sites/saltmarsh/faults/search-debrief',
  handover: '/sites/saltmarsh/handover/spring/since',
  people: '/sites/saltmarsh/people',
  history: '/sites/saltmarsh/history',
  order: '/sites/saltmarsh/order',
} as const
export type PictureName = keyof typeof PICTURES
