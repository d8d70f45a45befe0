/** One row of the log, in a sentence. */
import Box from '@mui/material/Box';
import type { LogEntry, Units } from '../api/types';
import { retiredWords } from '../drawings/words';
import { formatFigure, formatLength, formatRun, formatSetting, trim } from '../measure/format';

const day = new Intl.DateTimeFormat(undefined, {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
});

export function Entry({ entry: e, units }: { entry: LogEntry; units: Units }) {
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0,1fr)', sm: '176px minmax(0,1fr)' },
        columnGap: 2,
        py: 0.75,
        borderTop: '1px solid',
        borderColor: 'divider',
        fontSize: 15.5,
      }}
    >
      <Box component="time" dateTime={e.at} sx={{ color: 'text.secondary' }}>
        {day.format(new Date(e.at))}
      </Box>
      <Box sx={{ minWidth: 0 }}>
        {what(e, units)}
        {(e.by ?? e.note) && (
          <Box component="span" sx={{ color: 'text.secondary' }}>
            {e.by && ` ${e.by}`}
            {e.note && `${e.by ? ',' : ''} ${e.note}`}
          </Box>
        )}
      </Box>
    </Box>
  );
}

const cutWords = { rip: 'Ripped', crosscut: 'Crosscut', sheet: 'Cut sheet of' } as const;
const splinterWords = {
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

function what(e: LogEntry, units: Units) {
  const on = e.saw_name ? ` on ${e.saw_name}` : '';
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
      return (
        <>
          {cutWords[c.direction]} {formatLength(c.thickness_mm, units)} {c.material_name},{' '}
          {formatRun(c.metres, units)}
          {how}
          {many}
          {on}
          {at}: <b>wall {c.wall}</b>, {splinterWords[c.splinters]}.
        </>
      );
    }
    case 'mounted':
      return `Went on${on.replace(' on', '')}.`;
    case 'washed':
      return 'Washed.';
    case 'sharpened':
      return 'Sharpened.';
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
