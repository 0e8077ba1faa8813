/** Something of a cable that is so, is not, or that nobody has said, as tables and forms write it. */
export const YES_NO = ['yes', 'no'] as const
export const yesNo = (value: boolean | undefined): (typeof YES_NO)[number] | '' =>
  value === undefined ? '' : value ? 'yes' : 'no'
