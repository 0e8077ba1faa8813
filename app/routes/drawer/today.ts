/** The day as evidence is dated with. */
export const today = (): string => new Date().toISOString().slice(0, 10)
