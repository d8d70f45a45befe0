/** The passes of a cut that takes more than one, height by height. */
import { wordOf } from '../../drawings/codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { Sweep, Units } from '../../api/types';
import { formatSetting, percent } from '../../measure/format';
import { upper } from '../../drawings/words';
import { burn } from './Figures';

/** The passes of a cut that takes more than one. */
export function Passes({ passes, units, table }: { passes: Sweep['passes']; units: Units; table: boolean }) {
  return (
    <Box component="ol" aria-label={t`Passes`} sx={{ m: 0, pl: 2.5, fontSize: 15.5, lineHeight: 1.35 }}>
      {passes.map((p) => (
        <li key={p.name}>
          <b>{p.name}</b>{' '}
          {table
            ? t`${formatSetting(p.setting.height_mm, units)} high.`
            : t`${formatSetting(p.setting.height_mm, units)} deep.`}{' '}
          {t`${upper(wordOf(p.setting.exit.name))}: ${percent(p.setting.exit.of_limit)} of the tear-out this finish allows.`}{' '}
          {p.scorch_assessed ? t`Burn risk ${burn(p.setting.burn)}.` : t`Too shallow to judge burn risk.`}
        </li>
      ))}
    </Box>
  );
}
