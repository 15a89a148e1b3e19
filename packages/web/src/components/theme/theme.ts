import { createTheme } from '@mui/material/styles';
import { dark, light, type Tokens } from './tokens.js';

declare module '@mui/material/styles' {
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type -- merged with the library's own
  interface Palette extends Tokens {}
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type -- merged with the library's own
  interface PaletteOptions extends Tokens {}
  interface TypeBackground {
    sheet: string;
  }
}

const text = '"Public Sans Variable", system-ui, sans-serif';

/** Figures, tags and titles: slightly condensed and tabular, so that columns of numbers stand under each other. */
export const figureFont = {
  fontFamily: '"Archivo Variable", "Public Sans Variable", sans-serif',
  fontStretch: '85%',
  fontVariantNumeric: 'tabular-nums',
} as const;

const titleFont = { fontFamily: figureFont.fontFamily, fontStretch: '95%' } as const;

function palette(tokens: Tokens) {
  return {
    ...tokens,
    background: { default: tokens.paper, paper: tokens.sheet, sheet: tokens.sheet },
    text: { primary: tokens.ink, secondary: tokens.secondInk },
    primary: { main: tokens.verdigris, contrastText: tokens.onVerdigris },
    warning: { main: tokens.brass, contrastText: tokens.sheet },
    error: { main: tokens.oxide, contrastText: tokens.sheet },
    info: { main: tokens.slate, contrastText: tokens.sheet },
    divider: tokens.hairline,
  };
}

/** Whatever takes the focus shows it, on every ground. */
const focusRing = { outline: '2px solid var(--mui-palette-primary-main)', outlineOffset: 2 } as const;

export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-scheme' },
  colorSchemes: { light: { palette: palette(light) }, dark: { palette: palette(dark) } },
  shape: { borderRadius: 5 },
  typography: {
    fontFamily: text,
    fontSize: 14,
    h1: { ...titleFont, fontSize: '1.65rem', fontWeight: 650, letterSpacing: '-0.01em', lineHeight: 1.15 },
    h2: { ...titleFont, fontSize: '1.1rem', fontWeight: 650, lineHeight: 1.25 },
    h3: { ...titleFont, fontSize: '0.95rem', fontWeight: 650, lineHeight: 1.3 },
    button: { textTransform: 'none', fontWeight: 600 },
    body2: { fontSize: '0.84rem' },
    caption: { fontSize: '0.76rem' },
  },
  components: {
    // The usual ink of what is not chosen falls short of AA on paper.
    MuiToggleButton: { styleOverrides: { root: { color: 'var(--mui-palette-text-secondary)' } } },
    MuiCssBaseline: {
      styleOverrides: {
        body: { overflowWrap: 'anywhere' },
        // What takes the focus comes clear of the bar at the foot.
        html: { scrollPaddingBlock: '16px 104px' },
        ':focus-visible': focusRing,
        '@media (prefers-reduced-motion: reduce)': {
          '*, *::before, *::after': {
            animationDuration: '0.01ms !important',
            transitionDuration: '0.01ms !important',
          },
        },
      },
    },
    // What takes the focus shows it: the base of buttons would take the outline away.
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: {
        // Over its neighbour, where two stand side by side.
        root: { '&:focus-visible, &.Mui-focusVisible': { ...focusRing, zIndex: 1 } },
      },
    },
    MuiButton: {
      defaultProps: { disableElevation: true },
      styleOverrides: {
        root: {
          minHeight: 36,
          // What a button says breaks between words, never within one.
          overflowWrap: 'normal',
          '@media (pointer: coarse)': { minHeight: 44 },
        },
      },
    },
    MuiIconButton: {
      styleOverrides: { root: { '@media (pointer: coarse)': { minWidth: 44, minHeight: 44 } } },
    },
    MuiDialog: {
      styleOverrides: { paper: { backgroundImage: 'none', border: '1px solid var(--mui-palette-divider)' } },
    },
    MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiTooltip: { defaultProps: { enterDelay: 400 } },
    MuiOutlinedInput: {
      styleOverrides: {
        root: { backgroundColor: 'var(--mui-palette-background-paper)' },
        notchedOutline: { borderColor: 'var(--mui-palette-strongRule)' },
      },
    },
  },
});
