/** What the signs of a chart stand for, in a row. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { signOf } from '../drawings/WeekGlyphs';

interface Props {
  signs: readonly (readonly [keyof typeof signOf, string])[];
  before: ReactNode; // list items that stand before them
  after?: ReactNode;
}

export function SignKey({ signs, before, after }: Props) {
  return (
    <Box
      component="ul"
      aria-label={t`What the symbols mean`}
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        columnGap: 2,
        m: 0,
        p: 0,
        listStyle: 'none',
        fontSize: 14,
        color: 'text.secondary',
      }}
    >
      {before}
      {signs.map(([k, name]) => (
        <Box component="li" key={k} sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
          <svg width={18} height={18} viewBox="-9 -9 18 18" aria-hidden focusable="false">
            {signOf[k]}
          </svg>
          {name}
        </Box>
      ))}
      {after}
    </Box>
  );
}
