import { upgradeSchema } from '../growth'
import { listOf } from '../list'

export const upgrades = listOf(upgradeSchema, {
  noun: 'upgrade',
  most: 50,
  *references({ growth }) {
    for (const [at, each] of growth.entries())
      if (each.what === 'display') yield { path: `growth[${at}].at`, to: 'devices', id: each.at }
  },
})
