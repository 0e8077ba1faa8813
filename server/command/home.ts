import { join } from 'node:path'

/** The folder of the checkout: the launcher starts every command there. */
export const root = process.env.HALLWAY_ROOT ?? process.cwd()

/** Where Hallway keeps its own database, password and lock. */
export const home = process.env.HALLWAY_HOME ?? join(root, '.hallway')
