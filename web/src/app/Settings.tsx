/** How this person reads on this device: the unit and the light. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { useColorScheme } from '@mui/material/styles';
import useMediaQuery from '@mui/material/useMediaQuery';
import { usePreferences } from '../ui/preferences';

export const cell = {
  px: 1.5,
  minWidth: 52,
  fontSize: 16,
  fontWeight: 600,
  color: 'text.secondary',
  '&[aria-checked=true]': { color: 'text.primary', textDecoration: 'underline' },
  textDecorationThickness: '2px !important',
  textUnderlineOffset: '5px',
  '&:focus-visible': { outlineOffset: -4 },
};

export function Units() {
  const { units, setUnits } = usePreferences();
  return (
    <Box role="radiogroup" aria-label={t`Units`} sx={{ display: 'flex' }}>
      {(['mm', 'in'] as const).map((u) => (
        <ButtonBase
          key={u}
          role="radio"
          aria-checked={units === u}
          aria-label={u === 'mm' ? t`Millimetres` : t`Inches`}
          onClick={() => setUnits(u)}
          sx={cell}
        >
          {u}
        </ButtonBase>
      ))}
    </Box>
  );
}

export function Light() {
  const { mode, setMode } = useColorScheme();
  const systemDark = useMediaQuery('(prefers-color-scheme: dark)');
  const dark = mode === 'dark' || (mode === 'system' && systemDark);
  return (
    <ButtonBase
      aria-label={dark ? t`Light colors` : t`Dark colors`}
      onClick={() => setMode(dark ? 'light' : 'dark')}
      sx={cell}
    >
      {dark ? t`Light` : t`Dark`}
    </ButtonBase>
  );
}
