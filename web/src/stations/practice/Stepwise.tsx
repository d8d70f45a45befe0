/** A push without a moving board: how quickly each stretch of it goes is said before. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import { useState } from 'react';
import type { PracticeBoard } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { formatSetting } from '../../measure/format';
import { secondsAt } from '../../ui/feed';
import type { Push } from './useHand';

const STRETCH = 100; // mm
const SLOW = 60; // s for 300 mm or a foot
const QUICK = 2;
const FIRST = 12;

interface Props {
  board: PracticeBoard;
  busy: boolean;
  onPush: (push: Push) => void;
}

export function Stepwise({ board, busy, onPush }: Props) {
  const { units } = usePreferences();
  const count = Math.ceil(board.length_mm / STRETCH);
  const [seconds, setSeconds] = useState(() => Array.from({ length: count }, () => FIRST));
  const push = () => {
    const ms = [0];
    const mm = [0];
    seconds.forEach((s, i) => {
      const to = i + 1 < count ? (i + 1) * STRETCH : board.length_mm + 1;
      const metres = secondsAt(1, units) / 60; // that the seconds are for
      ms.push(ms[i]! + (s * (to - mm[i]!)) / metres);
      mm.push(to);
    });
    onPush({ ms, mm });
  };
  return (
    <Box sx={{ maxWidth: 720 }}>
      <Box sx={{ color: 'text.secondary' }}>
        {units === 'mm' ? t`Seconds for 300 mm, from where on:` : t`Seconds for a foot, from where on:`}
      </Box>
      {seconds.map((s, i) => {
        const from = formatSetting(i * STRETCH, units);
        return (
          <Box
            key={i}
            sx={{
              display: 'grid',
              gridTemplateColumns: '72px minmax(0, 1fr) 52px',
              gap: 2,
              alignItems: 'center',
              minHeight: 44,
            }}
          >
            <Box sx={{ whiteSpace: 'nowrap' }}>{from}</Box>
            <Slider
              aria-label={t`Seconds from ${from} on`}
              min={QUICK}
              max={SLOW}
              step={1}
              value={s}
              getAriaValueText={(v) => t`${v} s`}
              onChange={(_, v) => setSeconds(seconds.map((x, k) => (k === i ? v : x)))}
            />
            <Box sx={{ fontVariantNumeric: 'tabular-nums' }}>{t`${s} s`}</Box>
          </Box>
        );
      })}
      <Button variant="contained" disabled={busy} onClick={push} sx={{ mt: 1 }}>{t`Push`}</Button>
    </Box>
  );
}
