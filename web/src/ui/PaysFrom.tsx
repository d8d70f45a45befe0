/** From when sharpening a dear blade costs less than throwing cheap ones away: said, and drawn. */
import { selectOrdinal, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { Money, Units } from '../api/types';
import { CostChart } from '../drawings/CostChart';
import { formatRun } from '../measure/format';

export function PaysFrom({ money: m, units }: { money: Money; units: Units }) {
  if (m.dear.price === 0) return <Box>{t`Enter what it cost here or on its blade page.`}</Box>;
  if (m.line.length === 0) return null;
  return (
    <>
      <Box role="status" sx={{ fontSize: 18, fontWeight: 650, mb: 1 }}>
        {m.pays_from_m === undefined
          ? t`At these prices cheap blades cost less over one blade's life.`
          : m.dear.life_m > 0
            ? t`Sharpening costs less from ${formatRun(m.pays_from_m, units)} on: from its ${ordinal(Math.floor(m.pays_from_m / m.dear.life_m) + 1)} edge.`
            : t`Sharpening costs less from ${formatRun(m.pays_from_m, units)} on.`}
      </Box>
      <CostChart money={m} units={units} />
    </>
  );
}

const ordinal = (n: number) => selectOrdinal(n, { one: '#st', two: '#nd', few: '#rd', other: '#th' });
