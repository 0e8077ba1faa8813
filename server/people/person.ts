/** Somebody with an account. */
export type Person = { id: string; name: string; admin: boolean }
