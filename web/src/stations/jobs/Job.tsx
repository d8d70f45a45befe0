/** One job: its run sheet as a score, the knobs that lay it out, and its rows to be ticked off. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useDropJob, useJob, usePlanJob, useWhatIf } from '../../api/jobs';
import { useSaws } from '../../api/rack';
import { api } from '../../api/place';
import type { Job, JobKnobs, RunSheet, Units } from '../../api/types';
import { useChanges } from '../../api/changes';
import type { TermId } from '../../drawings/TermPicture';
import { usePhone } from '../../ui/phone';
import { usePreferences } from '../../ui/preferences';
import { percent } from '../../measure/format';
import { Arriving } from '../../ui/Arriving';
import { saidMinutes } from '../../ui/feed';
import { Trouble } from '../../ui/Notice';
import { Sure } from '../../ui/Sure';
import { Term } from '../../ui/Term';
import { Verdict } from '../../ui/Verdict';
import { Worded } from '../../ui/Worded';
import { AddRows } from './AddRows';
import { Knobs } from './Knobs';
import { Rows } from './Rows';
import { ScoreView } from './ScoreView';

export function JobPage() {
  const { id = '' } = useParams();
  const { units } = usePreferences();
  useChanges();
  const job = useJob(id, units);
  const saws = useSaws();
  if (!job.data || !saws.data) return <Arriving title={t`Job`} of={[job, saws]} rows={3} drawing />;
  return <Opened key={id} job={job.data} saws={saws.data.filter((s) => !s.retired)} units={units} />;
}

function Opened({
  job,
  saws,
  units,
}: {
  job: Job;
  saws: NonNullable<ReturnType<typeof useSaws>['data']>;
  units: Units;
}) {
  const go = useNavigate();
  const phone = usePhone();
  const [tried, setTried] = useState<JobKnobs>(); // knobs that are looked at
  const what = useWhatIf(job, tried, units);
  // The plan as it is, for the same pieces and from the same blades on the saws.
  const before = useWhatIf(job, tried && job.knobs, units);
  const plan = usePlanJob();
  const drop = useDropJob();
  const [chosen, setChosen] = useState<string>();
  const knobs = tried ?? job.knobs;
  const looked = tried ? what.data : undefined;
  const was = tried ? before.data : undefined;
  const shown = looked ?? job.sheet;
  const lay = () => plan.mutate({ job, knobs, units }, { onSuccess: () => setTried(undefined) });
  const made = job.rows.reduce((n, r) => n + Math.min(r.pieces, r.made), 0);
  const pieces = job.rows.reduce((n, r) => n + r.pieces, 0);
  const failed = plan.error ?? what.error ?? drop.error;
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2, alignItems: 'center' }}>
        <Button
          component={Link}
          to="/jobs"
          size="small"
          sx={{ ml: -0.75, '@media print': { display: 'none' } }}
        >
          {t`‹ Jobs`}
        </Button>
        <Typography variant="h1" sx={{ flex: '1 1 240px', overflowWrap: 'anywhere' }}>
          {job.name}
        </Typography>
        <Box role="status" sx={{ fontSize: 20, fontWeight: 650 }}>
          {t`${made} of ${pieces} made`}
        </Box>
        <Button
          component={Link}
          to={`/jobs/${job.id}/next`}
          variant="contained"
          sx={{ minHeight: 48, '@media print': { display: 'none' } }}
        >
          {t`At the saw`}
        </Button>
      </Box>
      {failed && <Trouble sx={{ my: 1 }}>{failed.message}</Trouble>}
      {job.left === 0 && job.rows.length > 0 ? (
        <Box sx={{ my: 1.5, fontSize: 18 }}>{t`Job done.`}</Box>
      ) : (
        <Box component={phone ? 'details' : 'div'} sx={{ my: 1.5 }}>
          {phone && <Fold>{t`How it is planned`}</Fold>}
          <Knobs knobs={knobs} saws={saws} onKnobs={setTried} />
        </Box>
      )}
      {shown ? (
        <>
          <Sums now={shown} was={was} />
          <ScoreView sheet={shown} ghost={was} rows={job.rows} chosen={chosen} onChoose={setChosen} />
        </>
      ) : (
        <Box sx={{ my: 1 }}>{t`Not planned yet.`}</Box>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, my: 1.5, '@media print': { display: 'none' } }}>
        {job.left > 0 && (
          <Button
            variant={tried || !job.sheet ? 'contained' : 'outlined'}
            disabled={plan.isPending}
            onClick={lay}
            sx={{ minHeight: 48 }}
          >
            {tried ? t`Use this plan` : job.sheet ? t`Replan the rest` : t`Plan it`}
          </Button>
        )}
        {tried && (
          <Button variant="outlined" onClick={() => setTried(undefined)} sx={{ minHeight: 48 }}>
            {t`Back to the current plan`}
          </Button>
        )}
        <AddRows job={job} units={units} />
        <Button variant="outlined" component={Link} to={`/jobs/${job.id}/stock`} sx={{ minHeight: 48 }}>
          {t`Stock`}
        </Button>
      </Box>
      {shown && <Notes sheet={shown} job={job} />}
      <Rows job={job} sheet={shown} units={units} saws={saws} chosen={chosen} onChoose={setChosen} />
      <Files job={job} units={units} />
      <Box sx={{ mt: 2, '@media print': { display: 'none' } }}>
        <Sure
          color="error"
          disabled={drop.isPending}
          asks={t`Delete this job?`}
          goes={t`This deletes its list, plan and ticks. Logged cuts stay in the log.`}
          yes={t`Delete`}
          onYes={() =>
            drop.mutate({ id: job.id, version: job.version }, { onSuccess: () => void go('/jobs') })
          }
        >
          {t`Delete job`}
        </Sure>
      </Box>
    </Box>
  );
}

function Fold({ children }: { children: string }) {
  return (
    <Box component="summary" sx={{ minHeight: 44, py: 1.25, fontWeight: 600, cursor: 'pointer' }}>
      {children}
    </Box>
  );
}

/** What a plan comes to, and beside it what the one before came to. */
function Sums({ now, was }: { now: RunSheet; was: RunSheet | undefined }) {
  type Sum = [string, string, string | undefined, TermId?];
  const sums: Sum[] = [
    [t`in all`, saidMinutes(now.end_min), was && saidMinutes(was.end_min)],
    [t`changes`, String(now.changes), was && String(was.changes)],
    [t`cutting`, saidMinutes(now.cut_min), was && saidMinutes(was.cut_min)],
    ...(now.wash_min + (was?.wash_min ?? 0) > 0
      ? [[t`cleaning`, saidMinutes(now.wash_min), was && saidMinutes(was.wash_min)] as Sum]
      : []),
    [t`burn risk`, percent(now.burn), was && percent(was.burn), 'burn-risk'],
  ];
  const gap = now.total_min > 0 ? (now.total_min - now.wash_min - now.bound_min) / now.total_min : 0;
  return (
    <Box
      role="status"
      sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 4, rowGap: 0.5, alignItems: 'baseline', mb: 1 }}
    >
      {sums.map(([name, v, before, term]) => (
        <Box key={name}>
          <Box sx={{ fontSize: 26, fontWeight: 700, lineHeight: 1.1 }}>
            {before !== undefined && before !== v && (
              <Box component="s" sx={{ fontSize: 18, fontWeight: 500, color: 'text.secondary', mr: 0.75 }}>
                {before}
              </Box>
            )}
            {v}
          </Box>
          <Box sx={{ fontSize: 14.5, color: 'text.secondary' }}>
            {term ? <Term of={term}>{name}</Term> : name}
          </Box>
        </Box>
      ))}
      <Box sx={{ color: 'text.secondary', flex: '1 1 200px' }}>
        {now.exact
          ? now.passes.some((p) => p.wash || p.swap_to !== undefined)
            ? t`This is the shortest plan with the blades as they are now. Cleaning adds to it.`
            : t`This is the shortest plan possible.`
          : t`At most ${percent(Math.max(0.01, gap))} longer than the shortest possible.`}
      </Box>
    </Box>
  );
}

function Notes({ sheet, job }: { sheet: RunSheet; job: Job }) {
  const nameOf = (id: string) => job.rows.find((r) => r.id === id)?.name ?? '';
  const shut = sheet.turns.flatMap((u) => u.cuts.filter((c) => c.shut).map((c) => [u, c] as const));
  const heard = sheet.heard ?? [];
  if (sheet.left_out.length + sheet.passes.length + shut.length + heard.length === 0) return null;
  return (
    <Box component="ul" sx={{ m: 0, mb: 2, pl: 2.5, lineHeight: 1.5, maxWidth: 820 }}>
      {heard.map((h) => (
        <li key={h.name + h.why}>
          <Verdict verdict={h.verdict} size={14} /> <b>{h.name}</b>: {h.why} <b>{h.way_out}</b>
        </li>
      ))}
      {sheet.left_out.map((l) => (
        <li key={l.row_id}>
          <b>{t`${nameOf(l.row_id)} can't be cut.`}</b> {l.why}
        </li>
      ))}
      {shut.map(([u, c]) => (
        <li key={c.row_id}>
          {t`None of your blades cuts ${nameOf(c.row_id)} well at any feed rate. ${u.blade_name} comes closest.`}
        </li>
      ))}
      {sheet.passes.map((p, i) => (
        <li key={i}>
          <Worded>{p.says}</Worded>
        </li>
      ))}
    </Box>
  );
}

function Files({ job, units }: { job: Job; units: Units }) {
  const file = (format: string) => `${api}/jobs/${job.id}/file?format=${format}&units=${units}`;
  return (
    <Box
      component="section"
      aria-label={t`Files`}
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        gap: 1,
        mt: 3,
        alignItems: 'center',
        '@media print': { display: 'none' },
      }}
    >
      <Button variant="outlined" onClick={() => print()}>{t`Print`}</Button>
      <Button variant="outlined" component="a" href={file('csv')} download>{t`List as CSV`}</Button>
      <Button variant="outlined" component="a" href={file('json')} download>{t`List as JSON`}</Button>
      {job.sheet && (
        <>
          <Button variant="outlined" component="a" href={file('svg')} download>{t`Sheet as SVG`}</Button>
          <Button
            variant="outlined"
            component="a"
            href={file('ics')}
            download
          >{t`Sheet as a calendar`}</Button>
        </>
      )}
      <Box sx={{ color: 'text.secondary' }}>{plural(job.rows.length, { one: '# row', other: '# rows' })}</Box>
    </Box>
  );
}
