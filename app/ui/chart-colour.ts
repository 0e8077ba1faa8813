/** A colour of the theme as it is in the light in force. */
export const chartColour = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--hw-colors-${name}`).trim()

/** How the axes of a chart look, in light and dark. */
export const axisLook = () => ({
  axisLabel: { color: chartColour('quiet') },
  axisLine: { lineStyle: { color: chartColour('line') } },
  splitLine: { lineStyle: { color: chartColour('line') } },
})
