/** How a figure is known: published, common practice of the trade, or from memory of a published document not opened here. */
export type Standing = 'published' | 'common practice' | 'from memory'

export type Source = { standing: Standing; where: string }

export const published = (where: string): Source => ({ standing: 'published', where })
export const commonPractice = (where: string): Source => ({ standing: 'common practice', where })
export const fromMemory = (where: string): Source => ({ standing: 'from memory', where })

/** "USB 2.0 §7.1.16 (published)": what a door's plate says. */
export const citeSource = (source: Source): string => `${source.where} (${source.standing})`
