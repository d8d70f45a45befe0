/** Readings that have been taken, each to be taken back. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import type { Units } from '../api/types';
import { formatThin } from '../measure/format';

interface Props {
  label: string; // what was read
  readings: number[]; // in millimetres
  units: Units;
  onKeep: (mm: number[]) => void;
}

export function Taken({ label, readings, units, onKeep }: Props) {
  if (readings.length === 0) return null;
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, my: 1 }} role="group" aria-label={label}>
      {readings.map((r, i) => (
        <ButtonBase
          key={i}
          aria-label={t`Undo ${formatThin(r, units)}`}
          onClick={() => onKeep(readings.filter((_, k) => k !== i))}
          sx={{
            border: '1.5px solid',
            borderColor: 'drawing.hair',
            borderRadius: 1,
            px: 1,
            gap: 1,
            minHeight: { xs: 44, md: 34 },
            fontSize: 16,
          }}
        >
          {formatThin(r, units)}
          <Box component="span" aria-hidden sx={{ color: 'text.secondary' }}>
            ×
          </Box>
        </ButtonBase>
      ))}
    </Box>
  );
}
