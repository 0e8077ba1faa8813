import { upgradeSchema } from '../../vocabulary/growth'
import { listOf } from '../../vocabulary/list'

export const upgrades = listOf(upgradeSchema, {
  noun: 'upgrade',
  most: 50,
  *references({ growth }) {
    for (const [at, each] of growth.entries())
      if (each.what === 'display') yield { path: `growth[${at}].at`, to: 'devices', id: each.at }
  },
})
