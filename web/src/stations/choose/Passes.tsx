/** The passes of a cut that takes more than one, height by height. */
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import type { Sweep, Units } from '../../api/types';
import { formatSetting, percent } from '../../measure/format';
import { burn } from './Figures';

/** The passes of a cut that takes more than one. */
export function Passes({ passes, units, table }: { passes: Sweep['passes']; units: Units; table: boolean }) {
  return (
    <Box component="ol" aria-label={t`Passes`} sx={{ m: 0, pl: 2.5, fontSize: 15.5, lineHeight: 1.35 }}>
      {passes.map((p) => (
        <li key={p.name}>
          <Trans>
            <b>{p.name}</b> {formatSetting(p.setting.height_mm, units)} {table ? 'high' : 'deep'},{' '}
            {p.setting.exit.name} {percent(p.setting.exit.of_limit)} of the splinters it bears
            {p.scorch_assessed
              ? t`, burn risk ${burn(p.setting.burn)}.`
              : t`; too shallow for scorch to be judged.`}
          </Trans>
        </li>
      ))}
    </Box>
  );
}
