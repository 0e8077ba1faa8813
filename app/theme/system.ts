import { createSystem, defaultBaseConfig, defineConfig } from '@chakra-ui/react'
import { breakpoints, headingRecipe, linkRecipe, textStyles, tokens } from '@chakra-ui/react/theme'
import { css } from '@emotion/react'
import { giveWay } from './after-first-paint'

const both = (light: string, dark: string) => ({ value: { base: light, _dark: dark } })

const { spacing, sizes, fontSizes, fontWeights, lineHeights, letterSpacings, radii, zIndex } = tokens

/**
 * Of the component library only what Hallway uses: every recipe, token and rule for all elements more is more to make, to send and to reckon with on each
 * page. Controls, rows and grades have classes of their own.
 */
const used = defineConfig({
  preflight: true,
  theme: {
    breakpoints,
    tokens: { spacing, sizes, fontSizes, fontWeights, lineHeights, letterSpacings, radii, zIndex },
    recipes: { heading: headingRecipe, link: linkRecipe },
    textStyles,
  },
})

/** Hallway's own look: paper, wall and brass; three grades; four flows. */
const config = defineConfig({
  cssVarsPrefix: 'hw',
  globalCss: {
    '*': { '--global-color-border': 'colors.line' },
    html: {
      '--global-font-body': 'fonts.body',
      '--global-font-mono': 'fonts.mono',
      bg: 'paper',
      color: 'ink',
      fontVariantNumeric: 'tabular-nums',
    },
    body: { bg: 'paper', color: 'ink' },
    '*:focus-visible': { outline: '3px solid var(--hw-colors-brass)', outlineOffset: '2px' },
    '*, *::before, *::after': {
      _motionReduce: { transitionDuration: '0s !important', animationDuration: '0s !important' },
    },
  },
  theme: {
    tokens: {
      fonts: {
        heading: { value: "'Overpass Variable', system-ui, sans-serif" },
        body: { value: "'Overpass Variable', system-ui, sans-serif" },
        mono: { value: "'Overpass Mono Variable', ui-monospace, monospace" },
      },
    },
    semanticTokens: {
      colors: {
        paper: both('#F6F4EF', '#161D24'),
        card: both('#FFFFFF', '#1E2730'),
        ink: both('#22303C', '#ECE8DF'),
        quiet: both('#55616C', '#A9B4BE'),
        line: both('#D8D3C7', '#37434F'),
        /** Where a control ends: darker than a mere rule. */
        edge: both('#7D8790', '#74818D'),
        sign: both('#22303C', '#0E141A'),
        signInk: both('#F6F4EF', '#ECE8DF'),
        signQuiet: both('#B9C3CC', '#A9B4BE'),
        brass: both('#A66A12', '#D9A04A'),
        brassInk: both('#8A560A', '#E5B265'),
        onBrass: both('#FFFFFF', '#1B1306'),
        floor: both('#ECE7DB', '#29343F'),
        solid: both('#22303C', '#0E141A'),
        clear: both('#1F6B3A', '#74CC94'),
        clearFloor: both('#E3F0E6', '#1B3527'),
        tight: both('#7F5200', '#E6B85C'),
        tightFloor: both('#F8EBCF', '#3B2F16'),
        blocked: both('#A02F1B', '#F29A85'),
        blockedFloor: both('#F8E2DC', '#43221B'),
        note: both('#3D5A73', '#A3BFD8'),
        noteFloor: both('#E4ECF2', '#22313E'),
        picture: both('#3F4FA3', '#98A6F2'),
        data: both('#0F6F68', '#5CC7BE'),
        headset: both('#86377B', '#DE93D3'),
        power: both('#4A5157', '#B4BCC3'),
      },
    },
  },
})

await giveWay()
const created = createSystem(defaultBaseConfig, used, config)
await giveWay()

/** The rules for all of a page are written out once, and not for each page that is rendered. */
export const system = { ...created, _global: css(created._global as never) as never }
