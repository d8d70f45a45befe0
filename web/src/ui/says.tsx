/** What a row of the log says, in a sentence. */
import type { ReactNode } from 'react';
import type { LogEntry, Units } from '../api/types';
import { effortWords, noiseWords, retiredWords } from '../drawings/words';
import { formatFigure, formatLength, formatRun, formatSetting, formatThin, trim } from '../measure/format';

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

/** A row of the log in a sentence. */
export function saysOf(e: LogEntry, units: Units): ReactNode {
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
      return e.amended_by ? 'A row was struck out; another stands in its place.' : 'A row was struck out.';
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
