/** One of a few, to be hit with a thumb; each may show what it looks like. */
import Box from '@mui/material/Box';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import type { ReactNode } from 'react';

interface Props<T extends string> {
  label: string;
  value: T | undefined;
  choices: readonly (readonly [T, string, ReactNode?])[];
  onPick: (v: T) => void;
  aside?: ReactNode; // another way to it, beside the label
}

export function Pick<T extends string>({ label, value, choices, onPick, aside }: Props<T>) {
  return (
    <Box>
      <Box sx={{ display: 'flex', alignItems: 'end', mb: 0.25 }}>
        <Box sx={{ fontSize: 14.5, color: 'text.secondary', mr: 'auto' }} aria-hidden>
          {label}
        </Box>
        {aside}
      </Box>
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={value ?? null}
        onChange={(_, v: T | null) => v !== null && onPick(v)}
        aria-label={label}
      >
        {choices.map(([v, name, picture]) => (
          <ToggleButton
            key={v}
            value={v}
            sx={{
              minHeight: 52,
              px: 0.5,
              py: 0.5,
              flexDirection: 'column',
              fontSize: 15.5,
              lineHeight: 1.15,
            }}
          >
            {picture}
            <Box component="span" sx={{ fontWeight: 600 }}>
              {name}
            </Box>
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </Box>
  );
}
