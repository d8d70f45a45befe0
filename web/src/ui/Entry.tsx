/** One row of the log, in a sentence. A mistake can be struck out where the row is shown. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useRef } from 'react';
import { Link } from 'react-router';
import { useStrike } from '../api/log';
import type { LogEntry, Units } from '../api/types';
import { effortWords, noiseWords, retiredWords } from '../drawings/words';
import { cutParams } from '../stations/choose/cut';
import { formatFigure, formatLength, formatRun, formatSetting, formatThin, trim } from '../measure/format';
import { useDates } from './useDates';

interface Props {
  entry: LogEntry;
  units: Units;
  named?: boolean; // with the blade's name, where rows of several stand together
  strike?: boolean; // with the means to strike it out
  stacked?: boolean; // in a narrow column
}

export function Entry({ entry: e, units, named = false, strike = false, stacked = false }: Props) {
  const { moment } = useDates();
  const struck = e.struck_by !== undefined;
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: {
          xs: 'minmax(0,1fr)',
          sm: stacked ? 'minmax(0,1fr)' : '176px minmax(0,1fr)',
        },
        columnGap: 2,
        py: 0.75,
        borderTop: '1px solid',
        borderColor: 'divider',
        fontSize: 15.5,
      }}
    >
      <Box component="time" dateTime={e.at} sx={{ color: 'text.secondary' }}>
        {moment(e.at)}
      </Box>
      <Box sx={{ minWidth: 0, overflowWrap: 'anywhere' }}>
        <Box component={struck ? 's' : 'span'} sx={struck ? { color: 'text.secondary' } : {}}>
          {named && e.blade_name && <b>{e.blade_name}: </b>}
          {what(e, units)}
          {(e.by ?? e.note) && (
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {e.by && ` ${e.by}`}
              {e.note && `${e.by ? ',' : ''} ${e.note}`}
            </Box>
          )}
        </Box>
        {struck && ' Struck out.'}
        {e.trial_id && (
          <>
            {' '}
            <Link to={`/trial/${e.trial_id}`}>See it</Link>
          </>
        )}
        {e.groove && (
          <>
            {' '}
            <Link to={`/groove/${e.groove.id}`}>See it</Link>
          </>
        )}
        {e.trace_id && (
          <>
            {' '}
            <Link to={`/trace/${e.trace_id}`}>See it</Link>
          </>
        )}
        {strike && !struck && e.cut && (e.cut.wall !== 'clean' || e.cut.splinters !== 'none') && (
          <>
            {' '}
            <Link to={`/trace?${traceOf(e, e.cut)}`}>trace it</Link>
          </>
        )}
        {strike && !struck && strikable.has(e.kind) && <Strike entry={e} />}
      </Box>
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

function Strike({ entry }: { entry: LogEntry }) {
  const { moment } = useDates();
  const strike = useStrike();
  const key = useRef(crypto.randomUUID());
  return (
    <>
      <Button
        size="small"
        sx={{
          minHeight: { xs: 44, md: 26 },
          py: 0,
          px: 0.75,
          ml: 0.5,
          fontSize: 14,
        }}
        disabled={strike.isPending}
        aria-label={`Strike out the row of ${moment(entry.at)}`}
        onClick={() => strike.mutate({ id: entry.id, key: key.current })}
      >
        strike out
      </Button>
      {strike.error && <Box sx={{ color: 'error.main' }}>{strike.error.message}</Box>}
    </>
  );
}

const cutWords = { rip: 'Ripped', crosscut: 'Crosscut', sheet: 'Cut sheet of' } as const;
const splinterSaid = {
  none: 'no splinters',
  fuzz: 'fuzz',
  splinters: 'some splinters',
  torn: 'torn',
} as const;

const truingWords = {
  heel: 'Heel',
  fence: 'Fence open at the rear',
  runout: 'Run-out',
  tilt: 'Tilt',
  gauge: 'Gauge',
  clearance: 'Side clearance, least to most',
} as const;

/** How it came back, with what was measured of it. */
function came(e: LogEntry, units: Units) {
  const all = [
    ...(e.says ?? []),
    e.kerf_mm ? `kerf now ${formatThin(e.kerf_mm, units)}` : '',
    e.diameter_mm ? `diameter now ${formatLength(e.diameter_mm, units)}` : '',
  ].filter(Boolean);
  return all.length > 0 ? `: ${all.join(', ')}.` : '.';
}

function grooved(g: NonNullable<LogEntry['groove']>, units: Units) {
  const wanted = formatThin(g.target_mm, units);
  if (!g.test) return `Grooves of ${wanted}: ${g.made} made.`;
  const deep = g.depth_mm ? `, ${formatThin(g.depth_mm, units)} deep` : '';
  return `A test groove: ${formatThin(g.width_mm ?? 0, units)} wide for ${wanted}${deep}.`;
}

function what(e: LogEntry, units: Units) {
  const on = e.saw_name ? ` on ${e.saw_name}` : '';
  const says = e.says?.length ? `: ${e.says.join(', ')}.` : '.';
  switch (e.kind) {
    case 'cut': {
      if (!e.cut) return 'Cut.';
      const c = e.cut;
      const at = c.height_mm ? ` at ${formatSetting(c.height_mm, units)}` : '';
      const how = [
        c.form && c.depth_mm ? `, ${c.form} ${formatSetting(c.depth_mm, units)} deep` : '',
        c.bevel_deg ? `, tilted ${trim(c.bevel_deg, 1)}°` : '',
        c.miter_deg ? `, mitered ${trim(c.miter_deg, 1)}°` : '',
      ].join('');
      const many = c.pieces > 1 ? `, ${c.pieces} pieces` : '';
      const more = [
        c.other_splinters && c.other_splinters !== 'none'
          ? `${splinterSaid[c.other_splinters]} on the other face`
          : '',
        c.effort && c.effort !== 'normal' ? `fed ${effortWords[c.effort]}` : '',
        c.noise && c.noise !== 'usual' ? noiseWords[c.noise] : '',
        c.sec_per_stroke
          ? `${trim(c.sec_per_stroke, 1)} s a stroke`
          : c.seconds
            ? `${trim(c.seconds, 1)} s a piece`
            : '',
        c.moisture && c.moisture !== 'dry' ? `${c.moisture} stock` : '',
      ].filter(Boolean);
      return (
        <>
          {cutWords[c.direction]} {formatLength(c.thickness_mm, units)} {c.material_name},{' '}
          {formatRun(c.metres, units)}
          {how}
          {many}
          {on}
          {at}: <b>wall {c.wall}</b>, {[splinterSaid[c.splinters], ...more].join(', ')}.
        </>
      );
    }
    case 'mounted':
      return `Went on${on.replace(' on', '')}.`;
    case 'washed':
      return `Washed${says.replace(': in', ' in')}`;
    case 'sharpened':
      return `Back, sharpened${came(e, units)}`;
    case 'returned':
      return `Back, not sharpened${came(e, units)}`;
    case 'sent':
      return `Sent out${says.replace(': to', ' to')}`;
    case 'judged':
      return `Said of it${says}`;
    case 'inspected':
      return `Looked over${says}`;
    case 'mended':
      return `Mended and inspected${says}`;
    case 'noted':
      return 'Noted:';
    case 'compared':
      return `Compared${says}`;
    case 'traced':
      return `A fault was traced${says}`;
    case 'grooved':
      return e.groove ? grooved(e.groove, units) : 'A groove.';
    case 'renewed':
      return `Parts of the set are new to it: ${[...(e.says ?? []), ...(e.renewed_mm ?? []).map((mm) => formatThin(mm, units))].join(', ')}.`;
    case 'struck':
      return 'A row was struck out.';
    case 'retired':
      return `Retired: ${retiredWords[e.reason ?? ''] ?? e.reason ?? ''}.`;
    case 'restored':
      return 'Put back on the rack.';
    case 'dismounted':
      return `Came off${on.replace(' on', '')}.`;
    case 'moved':
      return `${e.saw_name ?? 'The saw'} was moved or bumped.`;
    default:
      return `${truingWords[e.kind]}${on}: ${formatFigure(e.figure ?? 0, e.figure_unit ?? 'mm', units)}, ${e.verdict ?? ''}.`;
  }
}
