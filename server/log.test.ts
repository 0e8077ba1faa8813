import { describe, expect, inject, it } from 'vitest'
import { connect } from './database/connection'
import { loggedError } from './log'

describe('an error in the log', () => {
  it('of the database tells its kind and where it came from, and nothing of the statement or what was typed', async () => {
    const knex = connect(inject('databaseUrl'))
    const typed = 'typed-and-private'
    const error = await knex('no_such_table')
      .insert({ name: typed })
      .catch((caught: unknown) => caught)
    await knex.destroy()
    expect(String(error)).toContain(typed)
    const logged = loggedError(error)
    expect(logged).toMatchObject({ type: 'Error', code: 'ER_NO_SUCH_TABLE' })
    expect(JSON.stringify(logged)).not.toMatch(/typed-and-private|insert into/)
    expect(logged).toMatchObject({ stack: expect.stringContaining('    at ') })
  })
  it('of Hallway itself tells what happened', () => {
    expect(loggedError(new TypeError('it fell over'))).toMatchObject({ type: 'TypeError', message: 'it fell over' })
    expect(loggedError('a word')).toEqual({ type: 'string' })
  })
})
