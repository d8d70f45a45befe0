/** First blades: for who has none yet, from the saws and the kinds of work. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useJobList } from '../../api/jobs';
import { useFirstBlades } from '../../api/own';
import { useSaws } from '../../api/rack';
import type { FirstBlade, Units } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { Coming } from '../../ui/Arriving';
import { saidMinutes } from '../../ui/feed';
import { FirstThings } from '../../ui/FirstThings';
import { Trouble } from '../../ui/Notice';
import { Lines, Typer } from '../../cut/JobLines';
import { rowOf, useSettled } from '../../cut/typedRows';
import { SoldFace } from './SoldFace';

/** A year of some kind of work, as somebody would list it. */
const works: [string, string][] = [
  [
    t`furniture`,
    '60 boards, 25 mm × 120 mm red oak, 1200 mm long, rip, hidden\n40 legs, 44 mm × 44 mm cherry, 750 mm long, rip, show\n120 ends, 22 mm × 90 mm cherry, 900 mm long, crosscut, fine\n20 panels, 18 mm × 500 mm birch ply, 1200 mm long, sheet, show',
  ],
  [
    t`cabinets from sheets`,
    '80 sides, 18 mm × 560 mm birch ply, 720 mm long, sheet, show\n60 shelves, 16 mm × 500 mm melamine board, 800 mm long, sheet, show\n40 edgings, 20 mm × 40 mm hard maple, 800 mm long, rip, show',
  ],
  [
    t`framing and platforms`,
    '150 battens, 38 mm × 64 mm white pine, 2400 mm long, rip, hidden\n300 studs, 38 mm × 89 mm spruce, 1200 mm long, crosscut, rough\n40 lids, 18 mm × 600 mm softwood ply, 1200 mm long, sheet, hidden',
  ],
  [
    t`trim and frames`,
    '200 miters, 20 mm × 60 mm poplar, 900 mm long, crosscut, fine, miter 45\n60 strips, 12 mm × 40 mm walnut, 1200 mm long, rip, show',
  ],
];

export function First() {
  const { units } = usePreferences();
  const saws = useSaws();
  const [text, setText] = useState(works[0]![1]);
  const settled = useSettled(text);
  const list = useJobList(settled, units);
  const lines = useMemo(() => list.data ?? [], [list.data]);
  const good = lines.length > 0 && !lines.some((l) => l.faults.length > 0);
  const rows = useMemo(() => (good ? lines.map(rowOf) : []), [good, lines]);
  const first = useFirstBlades(rows, units);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Button component={Link} to="/buy" size="small" sx={{ ml: -0.75 }}>{t`‹ Buy`}</Button>
      <Typography variant="h1" sx={{ mb: 1 }}>{t`First blades`}</Typography>
      {saws.data?.length === 0 && <FirstThings missing="saw" />}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0, 5fr) minmax(0, 6fr)' },
          gap: 3,
          alignItems: 'start',
        }}
      >
        <Box sx={{ order: { xs: 2, md: 1 } }}>
          <Box
            role="group"
            aria-label={t`Kind of work`}
            sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mb: 1.5 }}
          >
            {works.map(([name, of]) => (
              <ButtonBase
                key={name}
                aria-pressed={text === of}
                onClick={() => setText(of)}
                sx={{
                  minHeight: 48,
                  px: 1.5,
                  border: '1.5px solid',
                  borderColor: 'drawing.hair',
                  fontSize: 16,
                  fontWeight: 600,
                  '&[aria-pressed=true]': { borderColor: 'text.primary', borderWidth: 3 },
                }}
              >
                {name}
              </ButtonBase>
            ))}
          </Box>
          <Typer text={text} onText={setText} />
          {lines.length > 0 && !good && <Lines lines={lines} units={units} />}
        </Box>
        <Box sx={{ order: { xs: 1, md: 2 } }}>
          {(list.error ?? first.error) && <Trouble>{(list.error ?? first.error)?.message}</Trouble>}
          {good && !first.data && !first.error && <Coming of={[first]} rows={3} height={130} />}
          {good && first.data && (
            <Box role="status">
              {first.data.items.map((b, i) => (
                <Step key={b.id} step={b} nth={i} pieces={first.data.pieces} units={units} />
              ))}
              <Box sx={{ mt: 1.5, maxWidth: 620 }}>
                {first.data.items.length === 0
                  ? t`No common blade for your saws cuts this.`
                  : t`That's enough for now. Another blade would save less time than it takes to change. Buy the next one when a job needs it.`}
              </Box>
            </Box>
          )}
        </Box>
      </Box>
    </Box>
  );
}

function Step({
  step: b,
  nth,
  pieces,
  units,
}: {
  step: FirstBlade;
  nth: number;
  pieces: number;
  units: Units;
}) {
  const does = pieces - b.undone;
  return (
    <Box sx={{ display: 'flex', gap: 2, py: 1.5, borderTop: '1px solid', borderColor: 'divider' }}>
      <Box sx={{ fontSize: 34, fontWeight: 700, lineHeight: 1.1, minWidth: 26 }}>{nth + 1}</Box>
      <Box sx={{ minWidth: 0 }}>
        <SoldFace blade={b} units={units} size={88} />
        <Box sx={{ fontWeight: 650, mt: 0.5 }}>
          {b.undone === 0
            ? t`With it you cut all ${pieces} pieces, in ${saidMinutes(b.total_min)}.`
            : t`With it you cut ${does} of ${pieces} pieces well, in ${saidMinutes(b.total_min)}.`}
        </Box>
        {b.instead.map((x) => (
          <Box key={x.name} sx={{ fontSize: 15, color: 'text.secondary' }}>
            {t`${x.name} instead: ${plural(pieces - x.undone, { one: '# piece', other: '# pieces' })}, ${saidMinutes(x.total_min)}.`}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
