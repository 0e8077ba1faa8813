import type { z } from 'zod'

/** A code with its figures; with none it is the code alone. */
export type Coded<Code extends string, Figures extends z.ZodObject> = string extends keyof z.output<Figures>
  ? { code: Code }
  : { code: Code } & z.output<Figures>
