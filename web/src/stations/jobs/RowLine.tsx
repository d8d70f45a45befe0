/** One row: how many are made, what it is, where and how it is cut; ticked, changed, and dragged by its grip. */
import { plural, t } from '@lingui/core/macro';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import { useState } from 'react';
import { Link } from 'react-router';
import type { JobRow, JobRowInput, RunCut, RunTurn, Saw, Units } from '../../api/types';
import { formatSetting, percent } from '../../measure/format';
import { saidMinutes } from '../../ui/feed';
import { Verdict } from '../../ui/Verdict';
import { cutParams } from '../../cut/cut';
import { RowDialog } from './RowDialog';
import { doneTo, sizeOf } from '../../cut/jobWords';

/** From where a row stands on one line. */
const WIDE = '@media (min-width: 760px)';

export type Planned = { turn: RunTurn; cut: RunCut };

interface Props {
  job: string;
  row: JobRow;
  planned: Planned | undefined;
  units: Units;
  saws: Saw[];
  chosen: boolean;
  busy: boolean;
  onChoose: () => void;
  onTick: (made: number, spoilt: number) => void;
  onEdit: (part: Partial<JobRowInput> | null) => void; // null takes it out
}

export function RowLine(p: Props) {
  const { row: r, planned, units } = p;
  const { setNodeRef, transform, transition, attributes, listeners, isDragging } = useSortable({ id: r.id });
  const [open, setOpen] = useState(false);
  return (
    <Box
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition: transition }}
      sx={{
        display: 'grid',
        gridTemplateColumns: '44px minmax(0,1fr)',
        [WIDE]: { gridTemplateColumns: '32px 92px minmax(0, 5fr) minmax(0, 4fr) 228px' },
        columnGap: 1.5,
        rowGap: 0.5,
        alignItems: 'center',
        py: 1,
        borderTop: '1px solid',
        borderColor: 'divider',
        bgcolor: p.chosen ? 'background.paper' : undefined,
        boxShadow: p.chosen ? 'inset 4px 0 0 currentColor' : undefined,
        opacity: isDragging ? 0.6 : 1,
        breakInside: 'avoid',
      }}
    >
      <ButtonBase
        {...attributes}
        {...listeners}
        aria-label={t`Move ${r.name}`}
        sx={{
          minHeight: 44,
          minWidth: { xs: 44, md: 32 },
          gridRow: '1 / span 4',
          [WIDE]: { gridRow: 'auto' },
          alignSelf: 'stretch',
          cursor: 'grab',
          touchAction: 'none',
          '@media print': { visibility: 'hidden' },
        }}
      >
        <svg width={14} height={22} aria-hidden focusable="false">
          <path d="M3 3v16M11 3v16" stroke="currentColor" strokeWidth={2} strokeDasharray="2 4" />
        </svg>
      </ButtonBase>
      <Box sx={{ fontSize: 22, fontWeight: 700, whiteSpace: 'nowrap' }}>
        {r.made}
        <Box component="span" sx={{ fontSize: 16, fontWeight: 500, color: 'text.secondary' }}>
          {' '}
          / {r.pieces}
        </Box>
      </Box>
      <ButtonBase
        onClick={p.onChoose}
        aria-pressed={p.chosen}
        sx={{ display: 'block', textAlign: 'left', minWidth: 0, minHeight: 44 }}
      >
        <Box sx={{ fontWeight: 650, fontSize: 17, overflowWrap: 'anywhere' }}>
          {r.name}
          {r.assembly && (
            <Box component="span" sx={{ fontWeight: 400, color: 'text.secondary' }}>
              {' '}
              · {r.assembly}
            </Box>
          )}
        </Box>
        <Box sx={{ fontSize: 15, color: 'text.secondary' }}>
          {sizeOf(r, units)} {r.material_name}, {doneTo(r, units)}
          {r.spoilt > 0 && `, ${plural(r.spoilt, { one: '# spoiled', other: '# spoiled' })}`}
        </Box>
      </ButtonBase>
      <Box
        sx={{
          gridColumn: 2,
          [WIDE]: { gridColumn: 'auto' },
          fontSize: 15,
          minWidth: 0,
          '@media print': { fontSize: 19 },
        }}
      >
        {planned ? (
          <>
            <Box sx={{ overflowWrap: 'anywhere' }}>
              {planned.turn.saw_name}, <b>{planned.turn.blade_name}</b>
              {planned.cut.height_mm !== undefined && `, ${formatSetting(planned.cut.height_mm, units)}`}
              {(r.saw_id ?? r.blade_id) && ` (${t`held`})`}
            </Box>
            <Box sx={{ display: 'flex', gap: 1.5, color: 'text.secondary', flexWrap: 'wrap' }}>
              <Verdict verdict={planned.cut.verdict} size={13} />
              <span>{saidMinutes(planned.cut.minutes)}</span>
              {planned.cut.burn >= 0.1 && <span>{t`burn risk ${percent(planned.cut.burn)}`}</span>}
            </Box>
          </>
        ) : (
          r.left > 0 && <Box sx={{ color: 'text.secondary' }}>{t`not planned`}</Box>
        )}
        {r.took_min !== undefined && (
          <Box sx={{ color: 'text.secondary' }}>
            {r.foretold_min !== undefined
              ? t`took ${saidMinutes(r.took_min)}, estimated ${saidMinutes(r.foretold_min)}`
              : t`took ${saidMinutes(r.took_min)}`}
          </Box>
        )}
      </Box>
      <Box
        sx={{
          gridColumn: 2,
          [WIDE]: { gridColumn: 'auto', justifyContent: 'flex-end' },
          display: 'flex',
          flexWrap: 'wrap',
          gap: 0.5,
          '@media print': { display: 'none' },
        }}
      >
        <Button
          variant="outlined"
          disabled={r.left === 0}
          aria-label={t`+1 of ${r.name} made`}
          onClick={() => p.onTick(1, 0)}
          sx={{ minWidth: 52, minHeight: 44 }}
        >
          +1
        </Button>
        <Button
          variant="outlined"
          disabled={r.left === 0}
          aria-label={t`All of ${r.name} made`}
          onClick={() => p.onTick(r.left, 0)}
          sx={{ minWidth: 52, minHeight: 44 }}
        >
          {t`All`}
        </Button>
        {planned && r.left > 0 && (
          <Button
            component={Link}
            to={`/run?${cutParams({ ...planned.cut.cut, pieces: r.left }, { blade: planned.turn.blade_id, h: planned.cut.height_mm, job: p.job, row: r.id })}`}
            aria-label={t`Run ${r.name}`}
            sx={{ minHeight: 44, minWidth: 52 }}
          >
            {t`Run`}
          </Button>
        )}
        <Button
          aria-label={t`More of ${r.name}`}
          onClick={() => setOpen(true)}
          sx={{ minWidth: 44, minHeight: 44 }}
        >
          …
        </Button>
      </Box>
      {open && (
        <RowDialog
          row={r}
          saws={p.saws}
          busy={p.busy}
          onTick={p.onTick}
          onEdit={(part) => {
            p.onEdit(part);
            setOpen(false);
          }}
          onClose={() => setOpen(false)}
        />
      )}
    </Box>
  );
}
