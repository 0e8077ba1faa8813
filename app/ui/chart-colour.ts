/** A colour of the theme as it is in the light in force. */
export const chartColour = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--hw-colors-${name}`).trim()
