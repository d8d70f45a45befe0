/** The score in its frame: as wide as the sheet, or drawn wider to be read along. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { JobRow, RunSheet } from '../../api/types';
import { Score, sawsOf, scoreHeight } from '../../drawings/Score';
import { saidMinutes } from '../../ui/feed';
import { Segments } from '../../ui/Segments';
import { useSize } from '../../drawings/useSize';
import { stages } from '../../cut/jobWords';

interface Props {
  sheet: RunSheet;
  ghost: RunSheet | undefined;
  rows: JobRow[];
  chosen: string | undefined;
  onChoose: (row: string) => void;
}

type Zoom = '1' | '2' | '4';

export function ScoreView({ sheet, ghost, rows, chosen, onChoose }: Props) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  const [zoom, setZoom] = useState<Zoom>('1');
  const frame = useRef<HTMLDivElement>(null);
  const named = useMemo(() => new Map(rows.map((r) => [r.id, r])), [rows]);
  // A row that is chosen comes into sight.
  useEffect(() => {
    const cut = sheet.turns.flatMap((u) => u.cuts).find((c) => c.row_id === chosen);
    if (!cut || !frame.current) return;
    const at = (cut.begin_min / Math.max(1, sheet.end_min)) * frame.current.scrollWidth;
    frame.current.scrollTo({ left: at - frame.current.clientWidth / 3 });
  }, [chosen, zoom, sheet]);
  const saws = sawsOf(sheet);
  return (
    <Box ref={ref}>
      <Box sx={{ display: 'flex', justifyContent: 'flex-end', mb: 0.5, '@media print': { display: 'none' } }}>
        <Segments<Zoom>
          label={t`Zoom`}
          value={zoom}
          choices={[
            { value: '1', name: t`all` },
            { value: '2', name: '×2' },
            { value: '4', name: '×4' },
          ]}
          onChoose={setZoom}
        />
      </Box>
      <Box
        ref={frame}
        role="img"
        aria-label={t`The run sheet: ${sheet.turns
          .map((u) => t`${u.saw_name} with ${u.blade_name}, ${saidMinutes(u.end_min - u.begin_min)}`)
          .join('; ')}`}
        tabIndex={zoom === '1' ? undefined : 0}
        sx={{
          minHeight: scoreHeight(saws.length),
          overflowX: zoom === '1' ? 'hidden' : 'auto',
          overflowY: 'hidden',
        }}
      >
        {width > 0 && (
          <Score {...{ sheet, ghost, stages, chosen, onChoose }} rows={named} width={width * Number(zoom)} />
        )}
      </Box>
    </Box>
  );
}
