/** Beside a saw: what is next on it, large, to be ticked with a glove on. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { useJob } from '../../api/jobs';
import { useKeep } from '../../api/logging';
import { useStartMounting } from '../../api/mount';
import { useSaws } from '../../api/rack';
import type { Job, JobRow, RunCut, RunTurn, Units } from '../../api/types';
import { useChanges } from '../../api/changes';
import { usePreferences } from '../../ui/preferences';
import { cutFace } from '../../drawings/theme';
import { formatSetting, trim } from '../../measure/format';
import { Arriving } from '../../ui/Arriving';
import { Trouble } from '../../ui/Notice';
import { Segments } from '../../ui/Segments';
import { Verdict } from '../../ui/Verdict';
import { cutParams } from '../../cut/cut';
import { doneTo, sizeOf, stageOrder, stages } from '../../cut/jobWords';

/** What is left to be cut, in the order of the sheet. */
interface Left {
  turn: RunTurn;
  cut: RunCut;
  row: JobRow;
  pieces: number; // to be made here
  begins: boolean; // what its turn begins with, and nothing of it is made
}

export function Next() {
  const { id = '' } = useParams();
  const { units } = usePreferences();
  useChanges();
  const job = useJob(id, units);
  if (!job.data) return <Arriving title={t`Next`} of={[job]} rows={2} height={200} />;
  return <AtSaw job={job.data} units={units} />;
}

/** What is left of a sheet in its order; a row that is parted in the middle is made from its front. */
function leftOf(job: Job): Left[] {
  const rows = new Map(job.rows.map((r) => [r.id, r]));
  const rest = new Map(job.rows.map((r) => [r.id, r.left]));
  const parts = (job.sheet?.turns ?? []).flatMap((turn) =>
    turn.cuts.map((cut, i) => ({ turn, cut, first: i === 0 })),
  );
  return parts.flatMap(({ turn, cut, first }, at) => {
    const row = rows.get(cut.row_id);
    if (!row) return [];
    const last = !parts.slice(at + 1).some((p) => p.cut.row_id === cut.row_id);
    const made = Math.min(cut.pieces, Math.max(0, row.made - cut.after));
    const all = rest.get(row.id) ?? 0;
    const pieces = last ? all : Math.min(all, cut.pieces - made); // spoilt ones are made again at the end
    rest.set(row.id, all - pieces);
    return pieces > 0 ? [{ turn, cut, row, pieces, begins: first && made === 0 }] : [];
  });
}

function AtSaw({ job, units }: { job: Job; units: Units }) {
  const [params, setParams] = useSearchParams();
  const mounted = new Map((useSaws().data ?? []).map((s) => [s.id, s.mounted_blade_id]));
  const keep = useKeep();
  const start = useStartMounting();
  const go = useNavigate();
  const failed = keep.error ?? start.error;
  const [last, setLast] = useState<{ row: JobRow; made: number; spoilt: number }>();
  const left = leftOf(job);
  const saws = [...new Map((job.sheet?.turns ?? []).map((u) => [u.saw_id, u.saw_name]))];
  const saw = params.get('at') ?? left[0]?.turn.saw_id ?? saws[0]?.[0];
  const mine = left.filter((l) => l.turn.saw_id === saw);
  const now = mine[0];
  const stage = left.map((l) => stageOrder.indexOf(l.turn.stage)).sort((a, b) => a - b)[0];
  const waits = now && stage !== undefined && stageOrder.indexOf(now.turn.stage) > stage;
  const tick = (row: JobRow, made: number, spoilt: number) => {
    setLast(made >= 0 && spoilt >= 0 ? { row, made, spoilt } : undefined);
    keep.mutate({
      key: crypto.randomUUID(),
      tick: { id: job.id, body: { row_id: row.id, made, spoilt } },
      blade: row.name,
    });
  };
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1, maxWidth: 760 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
        <Button
          component={Link}
          to={`/jobs/${job.id}`}
          sx={{ ml: -0.75, minHeight: 44 }}
        >{t`‹ Sheet`}</Button>
        <Typography variant="h1" sx={{ flex: 1, overflowWrap: 'anywhere', fontSize: { xs: 22, sm: 28 } }}>
          {job.name}
        </Typography>
      </Box>
      {saws.length > 1 && saw && (
        <Box sx={{ my: 1, overflowX: 'auto' }}>
          <Segments
            label={t`Saw`}
            value={saw}
            choices={saws.map(([value, name]) => ({ value, name }))}
            onChoose={(at) => setParams({ at }, { replace: true })}
          />
        </Box>
      )}
      {failed && <Trouble>{failed.message}</Trouble>}
      {!job.sheet && <Box sx={{ my: 2, fontSize: 18 }}>{t`Not planned yet. Plan it on the job page.`}</Box>}
      {job.sheet && !now && (
        <Box role="status" sx={{ my: 2, fontSize: 20, fontWeight: 650 }}>
          {left.length > 0 ? t`Nothing left for this saw.` : t`Job done.`}
        </Box>
      )}
      {now && (
        <Box role="status">
          {waits && (
            <Box sx={{ my: 1, fontWeight: 650, display: 'flex', gap: 1 }}>
              <Verdict verdict="caution" size={15} />
              <span>{t`First do the ${stages[stageOrder[stage]!]} on the other saws.`}</span>
            </Box>
          )}
          <Box sx={{ display: 'flex', alignItems: 'baseline', flexWrap: 'wrap', columnGap: 2, mt: 1 }}>
            <Box sx={{ fontFamily: cutFace, fontSize: 30, fontWeight: 640 }}>{now.turn.blade_name}</Box>
            {mounted.get(now.turn.saw_id) !== now.turn.blade_id && (
              <Button
                variant="outlined"
                disabled={start.isPending}
                onClick={() =>
                  start.mutate(
                    { saw_id: now.turn.saw_id, blade_id: now.turn.blade_id, units },
                    { onSuccess: (m) => void go(`/mount/${m.id}`) },
                  )
                }
                sx={{ minHeight: 48 }}
              >
                {t`Not on the saw. Mount it`}
              </Button>
            )}
          </Box>
          {now.begins && now.turn.wash && (
            <Box
              sx={{ display: 'flex', alignItems: 'center', flexWrap: 'wrap', columnGap: 1, fontWeight: 650 }}
            >
              <Verdict verdict="caution" size={15} />
              <span>{t`It has resin buildup by now.`}</span>
              <Button
                component={Link}
                to={`/care/wash?b=${now.turn.blade_id}`}
                sx={{ minHeight: 48 }}
              >{t`Clean it first`}</Button>
            </Box>
          )}
          <Box
            sx={{ display: 'flex', columnGap: { xs: 2.5, sm: 4 }, rowGap: 0.5, flexWrap: 'wrap', my: 0.5 }}
          >
            <Big name={t`left of ${now.row.pieces}`}>{String(now.row.left)}</Big>
            {now.cut.height_mm !== undefined && (
              <Big name={t`high`}>{formatSetting(now.cut.height_mm, units)}</Big>
            )}
            {now.cut.seconds !== undefined && (
              <Big name={t`feed of a piece`}>{`${trim(now.cut.seconds, 0)} s`}</Big>
            )}
          </Box>
          <Box sx={{ fontSize: 24, fontWeight: 700, overflowWrap: 'anywhere' }}>{now.row.name}</Box>
          <Box sx={{ fontSize: 18 }}>{sizeOf(now.row, units)}</Box>
          <Box sx={{ fontSize: 17, color: 'text.secondary' }}>
            {now.row.material_name}, {doneTo(now.row, units)}
          </Box>
          <Box
            sx={{ mt: 0.5, fontSize: 17, display: 'flex', flexWrap: 'wrap', gap: 2, alignItems: 'center' }}
          >
            <Verdict verdict={now.cut.verdict} />
            {now.row.form && now.row.form !== 'through' && (
              <Button component={Link} to={`/groove?${cutParams(now.cut.cut)}`} sx={{ minHeight: 44 }}>
                {t`Fit the groove`}
              </Button>
            )}
          </Box>
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: '1fr 1fr',
              gap: 1,
              mt: 1.5,
              '& .MuiButton-root': { minHeight: 60, fontSize: 18 },
            }}
          >
            <Button variant="contained" onClick={() => tick(now.row, 1, 0)}>{t`One done`}</Button>
            <Button variant="contained" onClick={() => tick(now.row, now.pieces, 0)}>
              {plural(now.pieces, { one: 'The last one made', other: 'All # made' })}
            </Button>
            <Button variant="outlined" onClick={() => tick(now.row, 0, 1)}>{t`One spoiled`}</Button>
            <Button
              variant="outlined"
              component={Link}
              to={`/run?${cutParams({ ...now.cut.cut, pieces: now.pieces }, { blade: now.turn.blade_id, h: now.cut.height_mm, job: job.id, row: now.row.id })}`}
            >
              {t`Run`}
            </Button>
          </Box>
        </Box>
      )}
      {last && (
        <Button sx={{ mt: 1, minHeight: 48 }} onClick={() => tick(last.row, -last.made, -last.spoilt)}>
          {t`Undo: ${last.made || last.spoilt} of ${last.row.name}`}
        </Button>
      )}
      {mine.length > 1 && (
        <>
          <Typography variant="h2" sx={{ mt: 2 }}>{t`Then`}</Typography>
          <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {mine.slice(1, 5).map((l, i) => (
              <Box
                component="li"
                key={l.row.id + String(l.cut.after)}
                sx={{ borderTop: '1px solid', borderColor: 'divider', py: 1, fontSize: 17 }}
              >
                {l.turn.blade_id !== mine[i]!.turn.blade_id && <b>{t`Change to ${l.turn.blade_name}.`} </b>}
                {l.begins && l.turn.wash && <b>{t`Clean ${l.turn.blade_name}.`} </b>}
                {l.pieces} × {l.row.name}
              </Box>
            ))}
          </Box>
        </>
      )}
    </Box>
  );
}

function Big({ name, children }: { name: string; children: string }) {
  return (
    <Box>
      <Box sx={{ fontSize: { xs: 38, sm: 46 }, fontWeight: 700, lineHeight: 1.1 }}>{children}</Box>
      <Box sx={{ fontSize: 15, color: 'text.secondary' }}>{name}</Box>
    </Box>
  );
}
