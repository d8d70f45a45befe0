/** One row of the log: a line that opens on a touch to its detail, where a mistake is put right or struck out. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import { lazy, Suspense, useId, useRef, useState } from 'react';
import { Link } from 'react-router';
import { useAmend, useStrike } from '../api/log';
import type { LogEntry, Units } from '../api/types';
import { cutParams } from './cut';
import { saysOf } from '../ui/says';
import { useDates } from '../ui/useDates';

const PutRight = lazy(() => import('./PutRight').then((m) => ({ default: m.PutRight })));

interface Props {
  entry: LogEntry;
  units: Units;
  named?: boolean; // with the blade's name, where rows of several stand together
  timed?: boolean; // under its day: the time alone
  narrow?: boolean; // in a column: the time above
}

export function LogRow({ entry: e, units, named = false, timed = false, narrow = false }: Props) {
  const { moment, time } = useDates();
  const [open, setOpen] = useState(false);
  const detail = useId();
  const struck = e.struck_by !== undefined;
  return (
    <Box component="li" sx={{ borderTop: '1px solid', borderColor: 'divider' }}>
      <ButtonBase
        aria-expanded={open}
        aria-controls={detail}
        onClick={() => setOpen(!open)}
        sx={{
          display: 'grid',
          width: '100%',
          minHeight: 44,
          gridTemplateColumns: narrow
            ? 'minmax(0,1fr)'
            : { xs: `${timed ? 52 : 96}px minmax(0,1fr)`, sm: `${timed ? 64 : 176}px minmax(0,1fr)` },
          columnGap: 1,
          alignItems: 'baseline',
          alignContent: 'center',
          textAlign: 'left',
          py: 0.5,
          fontSize: { xs: 16, md: 15.5 },
          lineHeight: 1.3,
        }}
      >
        <Box component="time" dateTime={e.at} sx={{ color: 'text.secondary' }}>
          {timed ? time(e.at) : moment(e.at)}
        </Box>
        <Box sx={{ minWidth: 0, overflowWrap: 'anywhere' }}>
          <Box component={struck ? 's' : 'span'} sx={struck ? { color: 'text.secondary' } : {}}>
            {named && e.blade_name && <b>{e.blade_name}: </b>}
            {saysOf(e, units)}
            {(e.by ?? e.note) && (
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {e.by && ` ${e.by}`}
                {e.note && `${e.by ? ',' : ''} ${e.note}`}
              </Box>
            )}
          </Box>
          {struck && ` ${e.amended_by ? t`Corrected.` : t`Deleted.`}`}
        </Box>
      </ButtonBase>
      <Box id={detail} hidden={!open}>
        {open && <Detail entry={e} units={units} />}
      </Box>
    </Box>
  );
}

function Detail({ entry: e, units }: { entry: LogEntry; units: Units }) {
  const { moment } = useDates();
  const strike = useStrike();
  const amend = useAmend();
  const [putting, setPutting] = useState(false);
  // One key for one doing: the same when it is tried again, another after it.
  const keys = useRef({ strike: crypto.randomUUID(), back: crypto.randomUUID() });
  const struck = e.struck_by !== undefined;
  const links = [
    e.trial_id && [`/trial/${e.trial_id}`, t`See the comparison`],
    e.groove && [`/groove/${e.groove.id}`, t`See the groove`],
    e.trace_id && [`/diagnose/${e.trace_id}`, t`See the diagnosis`],
    !struck &&
      e.cut &&
      (e.cut.wall !== 'clean' || e.cut.splinters !== 'none') && [
        `/diagnose?${traceOf(e, e.cut)}`,
        t`Diagnose`,
      ],
    e.cut && !struck && [`/?${traceOf(e, e.cut)}`, t`Repeat this cut`],
    e.blade_id && [`/blades/${e.blade_id}`, e.blade_name ?? t`The blade`],
  ].filter((l) => Array.isArray(l));
  const failed = strike.error ?? amend.error;
  return (
    <Box sx={{ pb: 1, display: 'flex', flexWrap: 'wrap', columnGap: 1, alignItems: 'center' }}>
      <Box sx={{ flexBasis: '100%', color: 'text.secondary', fontSize: 15 }}>
        {moment(e.at)}.{' '}
        {e.cut?.heard &&
          t`By sound: ${e.cut.heard.idle_rpm} rpm idle, ${e.cut.heard.mean_rpm} rpm in the cut, ${e.cut.heard.least_rpm} rpm at its slowest.`}
      </Box>
      {links.map(([to, name]) => (
        <Button key={to} component={Link} to={to!}>
          {name}
        </Button>
      ))}
      {!struck && strikable.has(e.kind) && (
        <>
          <Button variant="outlined" onClick={() => setPutting(true)}>{t`Correct it`}</Button>
          <Button
            disabled={strike.isPending}
            aria-label={t`Delete the entry of ${moment(e.at)}`}
            onClick={() => strike.mutate({ id: e.id, key: keys.current.strike })}
          >
            {t`Delete`}
          </Button>
        </>
      )}
      {struck && !e.amended_by && (
        <Button
          variant="outlined"
          disabled={amend.isPending}
          aria-label={t`Restore the entry of ${moment(e.at)}`}
          onClick={() => amend.mutate({ id: e.id, key: keys.current.back, body: {} })}
        >
          {t`Restore`}
        </Button>
      )}
      {failed && (
        <Box role="alert" sx={{ flexBasis: '100%', color: 'error.main' }}>
          {failed.message}
        </Box>
      )}
      {putting && (
        <Suspense fallback={null}>
          <PutRight entry={e} units={units} onClose={() => setPutting(false)} />
        </Suspense>
      )}
    </Box>
  );
}

const traceOf = (e: LogEntry, c: NonNullable<LogEntry['cut']>) =>
  cutParams(
    {
      saw_id: e.saw_id,
      material: c.material,
      direction: c.direction,
      motion: c.motion,
      finish: c.finish,
      thickness_mm: c.thickness_mm,
      width_mm: c.width_mm,
      length_mm: c.length_mm,
      exit_support: c.exit_support,
      form: c.form,
      depth_mm: c.depth_mm,
      bevel_deg: c.bevel_deg,
      miter_deg: c.miter_deg,
    },
    { blade: e.blade_id, h: c.height_mm },
  );

const strikable = new Set<LogEntry['kind']>([
  ...([
    'cut',
    'washed',
    'sharpened',
    'returned',
    'sent',
    'judged',
    'inspected',
    'mended',
    'noted',
    'moved',
  ] as const),
  ...([
    'mounted',
    'dismounted',
    'heel',
    'fence',
    'runout',
    'tilt',
    'gauge',
    'clearance',
    'grooved',
    'renewed',
  ] as const),
]);
