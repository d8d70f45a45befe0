import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { TruingResult, Units } from '../../api/types';
import { formatFigure } from '../../measure/format';
import { Notice } from '../../ui/Notice';
import { Worded } from '../../ui/Worded';

export function Found({
  result: r,
  before,
  units,
}: {
  result: TruingResult;
  before: TruingResult | undefined;
  units: Units;
}) {
  const show = (x: TruingResult) => formatFigure(x.figure, x.figure_unit, units);
  return (
    <Box component="section" aria-label={t`Result`} sx={{ mt: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5, flexWrap: 'wrap' }}>
        <Box sx={{ fontSize: 34, fontWeight: 700, lineHeight: 1.1 }}>{show(r)}</Box>
        {(r.test === 'width' || r.test === 'depth') && (
          <Box sx={{ color: 'text.secondary' }}>{t`target minus measured`}</Box>
        )}
        {r.aim !== undefined && (
          <Box sx={{ color: 'text.secondary' }}>
            {t`target ${formatFigure(r.aim, r.figure_unit, units)}`}
            {r.act !== undefined && `, ${t`correct above ${formatFigure(r.act, r.figure_unit, units)}`}`}
          </Box>
        )}
        {before && (
          <Box>
            <Trans>
              before: <b>{show(before)}</b>
            </Trans>
          </Box>
        )}
      </Box>
      {(r.doubtful_first.length > 0 || r.doubtful_second.length > 0) && (
        <Notice kind="caution" sx={{ my: 1 }}>
          {t`One reading is far from the others. Take it again before you trust the rest.`}
        </Notice>
      )}
      {r.says.map((s) => (
        <Typography key={s} sx={{ lineHeight: 1.4 }}>
          <Worded>{s}</Worded>
        </Typography>
      ))}
      {r.do.length > 0 && (
        <Box
          component="ol"
          aria-label={t`What to do`}
          sx={{ mt: 1, mb: 0, pl: 2.5, fontWeight: 600, lineHeight: 1.4 }}
        >
          {r.do.map((d) => (
            <li key={d}>{d}</li>
          ))}
        </Box>
      )}
    </Box>
  );
}
