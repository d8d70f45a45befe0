/** Supports are drawn under a board, and it is cut: it lies still, or it binds, tips or falls. */
import { t } from '@lingui/core/macro';
import Button from '@mui/material/Button';
import { useState } from 'react';
import type { DrillTask } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { SupportView } from '../../drawings/SupportView';
import type { Taking } from './useTask';

export function Supports({
  board,
  told,
  busy,
  onAnswer,
}: Taking & { board: NonNullable<DrillTask['board']> }) {
  const { units } = usePreferences();
  const [at, setAt] = useState(board.at_mm);
  const whole = [{ from_mm: 0, to_mm: board.span_mm }];
  const done = told !== undefined || busy;
  return (
    <>
      <SupportView
        plan={
          told?.supports ?? {
            at_mm: [...at].sort((a, b) => a - b),
            kg: 0,
            gap_mm: 0,
            sag_mm: 0,
            binds: false,
            text: [],
            halves: whole.map((h) => ({ ...h, kg: 0, verdict: undefined, loads: [] })),
          }
        }
        spanMm={board.span_mm}
        breadthMm={board.breadth_mm}
        lineMm={board.line_mm}
        units={units}
        handles={at}
        {...(!done && { onMove: (i: number, mm: number) => setAt(at.map((x, k) => (k === i ? mm : x))) })}
      />
      {!told && (
        <Button
          variant="contained"
          disabled={done}
          onClick={() => onAnswer({ places_mm: at })}
        >{t`Cut`}</Button>
      )}
    </>
  );
}
