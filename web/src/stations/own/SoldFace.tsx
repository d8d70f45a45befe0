/** A blade of a kind that is sold: its face, its name, its numbers. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { SoldBlade, Units } from '../../api/types';
import { cutFace } from '../../drawings/theme';
import { PlainBlade } from '../../drawings/PlainBlade';
import { grindShort } from '../../drawings/words';
import { formatThin, trim } from '../../measure/format';

export function SoldFace({ blade: b, units, size = 104 }: { blade: SoldBlade; units: Units; size?: number }) {
  return (
    <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', minWidth: 0 }}>
      <Box sx={{ flex: 'none', lineHeight: 0 }}>
        <PlainBlade shape={b} size={size} />
      </Box>
      <Box sx={{ minWidth: 0 }}>
        <Box sx={{ fontFamily: cutFace, fontSize: 24, fontWeight: 640, lineHeight: 1.15 }}>{b.name}</Box>
        <Box sx={{ fontSize: 15 }}>{b.for}</Box>
        <Box sx={{ fontSize: 14.5, color: 'text.secondary' }}>
          {t`${grindShort[b.grind]}, hook ${trim(b.hook_deg, 0)}°, kerf ${formatThin(b.kerf_mm, units)}; for ${b.saws.join(', ')}`}
        </Box>
      </Box>
    </Box>
  );
}
