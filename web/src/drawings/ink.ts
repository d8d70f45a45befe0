/** The drawing's inks as CSS variables of the theme, so that day and night swap without a redraw. */
const palette = (name: string) => `var(--mui-palette-${name})`;

export const ink = {
  ink: palette('drawing-ink'),
  hair: palette('drawing-hair'),
  steel: palette('drawing-steel'),
  wood: palette('drawing-wood'),
  grain: palette('drawing-grain'),
  scorch: palette('drawing-scorch'),
  mark: palette('drawing-mark'),
  accent: palette('primary-main'),
  paper: palette('background-paper'),
  sheet: palette('background-default'),
} as const;
