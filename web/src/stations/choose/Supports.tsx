/** A board from above with its cut line and its supports: where four go, and what comes of where they are. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useSupports } from '../../api/choose';
import type { Cut, SupportPlan, Units } from '../../api/types';
import { SupportView } from '../../drawings/SupportView';
import { formatSetting, trim } from '../../measure/format';
import { LengthField } from '../../ui/LengthField';
import { Trouble } from '../../ui/Notice';

/** The board that a cut is likely to come out of; each size can be said otherwise. */
function boardOf(cut: Cut) {
  if (cut.direction === 'crosscut') {
    return {
      span: cut.length_mm,
      breadth: cut.width_mm,
      line: cut.piece_mm ?? cut.length_mm / 2,
    };
  }
  const span = Math.max(cut.width_mm * 2, 300);
  return { span, breadth: cut.length_mm, line: cut.width_mm };
}

export function Supports({ cut, units }: { cut: Cut; units: Units }) {
  const [board, setBoard] = useState(() => boardOf(cut));
  const [now, setNow] = useState<number[]>([]);
  const answer = useSupports({
    material: cut.material,
    thickness_mm: cut.thickness_mm,
    span_mm: board.span,
    breadth_mm: board.breadth,
    line_mm: board.line,
    now_mm: now.length > 0 ? now : undefined,
    units,
  });
  const field = (key: keyof typeof board, label: string) => (
    <Box sx={{ width: 150 }}>
      <LengthField
        label={label}
        mm={board[key]}
        units={units}
        onLength={(mm) => setBoard((now) => ({ ...now, [key]: mm }))}
      />
    </Box>
  );
  const shown = answer.data && (now.length > 0 && answer.data.now ? answer.data.now : answer.data.plan);
  return (
    <Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
        {field('span', t`Board, across the cut`)}
        {field('breadth', t`Board, along it`)}
        {field('line', t`Cut line from the left`)}
      </Box>
      {answer.error && <Trouble sx={{ mt: 1 }}>{answer.error.message}</Trouble>}
      {shown && !answer.error && (
        <>
          <SupportView
            plan={shown}
            spanMm={board.span}
            breadthMm={board.breadth}
            lineMm={board.line}
            units={units}
            onMove={now.length > 0 ? (i, mm) => setNow(now.map((x, k) => (k === i ? mm : x))) : undefined}
            handles={now}
          />
          <Told plan={shown} units={units} />
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mt: 0.5 }}>
            {now.length === 0 ? (
              <Button
                variant="outlined"
                size="small"
                onClick={() => setNow([Math.round(board.span * 0.08), Math.round(board.span * 0.92)])}
              >
                {t`Move the supports`}
              </Button>
            ) : (
              <>
                <Button
                  variant="outlined"
                  size="small"
                  disabled={now.length >= 8}
                  onClick={() => setNow([...now, Math.round(board.span / 2)])}
                >
                  {t`Add one`}
                </Button>
                <Button
                  variant="outlined"
                  size="small"
                  disabled={now.length <= 1}
                  onClick={() => setNow(now.slice(0, -1))}
                >
                  {t`Remove one`}
                </Button>
                <Button variant="outlined" size="small" onClick={() => setNow([])}>
                  {t`Reset to the plan`}
                </Button>
              </>
            )}
          </Box>
        </>
      )}
    </Box>
  );
}

function Told({ plan, units }: { plan: SupportPlan; units: Units }) {
  return (
    <Box role="status" sx={{ fontSize: 15.5, lineHeight: 1.4 }}>
      {plan.text.map((it) => (
        <div key={it}>{it}</div>
      ))}
      <Box sx={{ color: 'text.secondary' }}>
        {t`Total ${trim(plan.kg, 1)} kg. Supports at ${plan.at_mm.map((x) => formatSetting(x, units)).join(', ')} from the left.`}{' '}
        {t`The ends at the cut line sag by ${formatSetting(plan.sag_mm, units)}.`}
      </Box>
    </Box>
  );
}
