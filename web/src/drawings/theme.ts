/**
 * Paper and ink by day, slate and chalk by night. Type, shape and colour are
 * set here once; drawings take their inks from the same variables.
 */
import { createTheme } from '@mui/material/styles';

declare module '@mui/material/styles' {
  interface Palette {
    drawing: Drawing;
  }
  interface PaletteOptions {
    drawing: Drawing;
  }
}

/** The inks of a drawing: what stands still, what is dimensioned, what burns. */
interface Drawing {
  ink: string;
  hair: string;
  steel: string;
  wood: string;
  grain: string;
  scorch: string;
  mark: string;
}

const day = {
  mode: 'light' as const,
  background: { default: '#f4efe4', paper: '#fbf8f1' },
  text: { primary: '#1d1c1a', secondary: '#575146' },
  divider: '#cdc3b1',
  primary: { main: '#145a9e', contrastText: '#fbf8f1' },
  error: { main: '#9c2b1d' },
  drawing: {
    ink: '#1d1c1a',
    hair: '#6f6758',
    steel: '#e6e3dc',
    wood: '#ecdcb9',
    grain: '#c9ae7c',
    scorch: '#7a4a22',
    mark: '#575146',
  },
};

const night = {
  mode: 'dark' as const,
  background: { default: '#1e2428', paper: '#262d32' },
  text: { primary: '#f0ece1', secondary: '#b9b5a9' },
  divider: '#465058',
  primary: { main: '#8cc6ff', contrastText: '#14202b' },
  error: { main: '#ff9d8a' },
  drawing: {
    ink: '#f0ece1',
    hair: '#98a0a3',
    steel: '#3b454c',
    wood: '#4c4535',
    grain: '#736746',
    scorch: '#d08a4e',
    mark: '#b9b5a9',
  },
};

export const text = '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif';
/** The face with character, cut rather than drawn: for names of stations and blades. */
export const cutFace = '"Piazzolla Variable", Georgia, serif';

/** Where the keyboard is, on every control alike. */
const focused = { outline: '3px solid var(--mui-palette-primary-main)', outlineOffset: 2 };

export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-scheme' },
  colorSchemes: { light: { palette: day }, dark: { palette: night } },
  shape: { borderRadius: 3 },
  spacing: 8,
  typography: {
    fontFamily: text,
    fontSize: 15,
    h1: { fontFamily: cutFace, fontSize: '1.75rem', fontWeight: 640, lineHeight: 1.15 },
    h2: { fontFamily: cutFace, fontSize: '1.3rem', fontWeight: 620, lineHeight: 1.2 },
    h3: { fontFamily: cutFace, fontSize: '1.08rem', fontWeight: 620, lineHeight: 1.2 },
    body1: { fontSize: '1rem', lineHeight: 1.4 },
    body2: { fontSize: '0.875rem', lineHeight: 1.35 },
    caption: { fontSize: '0.8rem', lineHeight: 1.3 },
    button: { textTransform: 'none', fontWeight: 600, letterSpacing: 0 },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        body: { fontVariantNumeric: 'tabular-nums', WebkitFontSmoothing: 'antialiased' },
        a: { color: 'var(--mui-palette-primary-main)' },
        ':focus-visible': focused,
        // A link in a sentence is a thumb high on a phone, without pushing the lines apart.
        '@media (max-width: 599px)': {
          'a:not([class])': { display: 'inline-block', padding: '12px 6px', margin: '-12px -6px' },
        },
        h1: { '&:focus': { outline: 'none' } }, // it has the focus on arrival, to be read out
        '@media (prefers-reduced-motion: reduce)': {
          '*': { transition: 'none !important', animation: 'none !important' },
        },
      },
    },
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      // MUI takes the outline off every button; it stands after that, so it has to be said again here.
      styleOverrides: { root: { fontFamily: 'inherit', '&:focus-visible, &.Mui-focusVisible': focused } },
    },
    MuiButton: {
      defaultProps: { disableElevation: true },
      styleOverrides: {
        root: {
          minHeight: 44,
          borderWidth: 1.5,
          '@media (forced-colors: active)': { border: '1.5px solid ButtonText' },
        },
      },
    },
    MuiPaper: { defaultProps: { elevation: 0 }, styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiPopover: {
      styleOverrides: {
        paper: {
          border: '1.5px solid var(--mui-palette-text-primary)',
          boxShadow: '4px 4px 0 rgba(0,0,0,.14)',
        },
      },
    },
    MuiMenuItem: { styleOverrides: { root: { minHeight: 44 } } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          textTransform: 'none',
          minHeight: 44,
          fontWeight: 500,
          color: 'var(--mui-palette-text-primary)',
          borderColor: 'var(--mui-palette-drawing-hair)',
          '&.Mui-selected, &.Mui-selected:hover': {
            color: 'var(--mui-palette-background-paper)',
            backgroundColor: 'var(--mui-palette-text-primary)',
          },
        },
      },
    },
  },
});
