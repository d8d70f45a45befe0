/** What goes into the groove: its thickness at several places, and how it is to sit. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { useState } from 'react';
import type { components } from '../../api/schema';
import type { Fit, Units } from '../../api/types';
import { formatThin } from '../../measure/format';
import { GaugePanel } from '../../ui/GaugePanel';
import { Pick } from '../../ui/Pick';
import { ReadingEntry } from '../../ui/ReadingEntry';
import { Taken } from '../../ui/Taken';
import { Verdict } from '../../ui/Verdict';

interface Props {
  readings: number[];
  fit: Fit;
  plan: components['schemas']['GroovePlan'] | undefined;
  units: Units;
  onRead: (change: (now: number[]) => number[]) => void;
  onFit: (f: Fit) => void;
}

const fits = [
  ['tap', t`tight: mallet`],
  ['glue', t`glue: room for glue`],
  ['slip', t`loose: slides by hand`],
] as const;
const MOST = 12;

export function Piece({ readings, fit, plan, units, onRead, onFit }: Props) {
  const [gauge, setGauge] = useState(false);
  const add = (mm: number[]) => onRead((now) => [...now, ...mm].slice(-MOST));
  return (
    <Box component="section" aria-label={t`The piece that goes in`}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'flex-start', flexWrap: 'wrap' }}>
        <Box sx={{ flex: 1, minWidth: 210 }}>
          <ReadingEntry label={t`the piece, place ${readings.length + 1}`} units={units} onRead={add} />
        </Box>
        {plan && (
          <Box sx={{ minWidth: 140 }}>
            <Box sx={{ fontSize: 14.5, color: 'text.secondary' }}>{t`Width`}</Box>
            <Box sx={{ fontSize: 31, fontWeight: 700, lineHeight: 1.1 }} data-testid="target">
              {formatThin(plan.target_mm, units)}
            </Box>
            <Box sx={{ fontSize: 14.5, color: 'text.secondary' }}>
              {plan.allowance_mm > 0
                ? t`${formatThin(plan.thickest_mm, units)} and ${formatThin(plan.allowance_mm, units)}`
                : t`as thick as the piece`}
            </Box>
          </Box>
        )}
      </Box>
      <Taken label={t`Readings`} readings={readings} units={units} onKeep={(kept) => onRead(() => kept)} />
      {readings.length === 0 && (
        <Box sx={{ fontSize: 17, my: 1.5 }}>
          {t`Measure the piece in three places. A sheet sold as ${units === 'mm' ? t`18 mm` : '3/4"'} is often ${units === 'mm' ? t`17.6 to 18.3 mm` : t`0.69 to 0.72"`}, so a groove cut to the nominal size doesn't fit.`}
        </Box>
      )}
      {plan?.mind && (
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline', fontSize: 15.5, mb: 1 }}>
          <Verdict verdict="caution" size={13} />
          <span>{plan.mind}</span>
        </Box>
      )}
      <Pick label={t`Fit`} value={fit} choices={fits} onPick={onFit} />
      <Box component="details" onToggle={(e) => setGauge(e.currentTarget.open)} sx={{ mt: 0.5 }}>
        <Box component="summary" sx={{ cursor: 'pointer', fontSize: 15, minHeight: 44, lineHeight: '44px' }}>
          {t`From a connected gauge`}
        </Box>
        {gauge && (
          <GaugePanel
            units={units}
            place={undefined}
            at={String(readings.length)}
            onCapture={(mm) => add([mm])}
          />
        )}
      </Box>
    </Box>
  );
}
