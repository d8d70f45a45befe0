/** What a row of the log says, in a sentence. */
import { wordOf } from '../drawings/codeWords';
import { t } from '@lingui/core/macro';
import type { ReactNode } from 'react';
import type { LogEntry, Units } from '../api/types';
import { formWords } from '../drawings/words';
import { effortWords, noiseWords, retiredWords, wallWords } from '../drawings/recordWords';
import { formatFigure, formatLength, formatRun, formatSetting, formatThin, trim } from '../measure/format';

const cutWords = { rip: t`Ripped`, crosscut: t`Crosscut`, sheet: t`Cut sheet of` } as const;
const splinterSaid = {
  none: t`no tear-out`,
  fuzz: t`fuzzy grain`,
  splinters: t`some tear-out`,
  torn: t`tear-out`,
} as const;

const truingWords = {
  heel: t`Toe-in or toe-out`,
  fence: t`Fence toe-out at the rear`,
  runout: t`Run-out`,
  tilt: t`Tilt`,
  gauge: t`Miter gauge`,
  clearance: t`Side clearance, least to most`,
} as const;

/** How it came back, with what was measured of it. */
function came(e: LogEntry, units: Units) {
  const all = [
    ...(e.says ?? []),
    e.kerf_mm ? t`kerf now ${formatThin(e.kerf_mm, units)}` : '',
    e.diameter_mm ? t`diameter now ${formatLength(e.diameter_mm, units)}` : '',
  ].filter(Boolean);
  return all.length > 0 ? `: ${all.join(', ')}.` : '.';
}

function grooved(g: NonNullable<LogEntry['groove']>, units: Units) {
  const wanted = formatThin(g.target_mm, units);
  if (!g.test) return t`Grooves of ${wanted}: ${g.made} made.`;
  const test = t`Test groove: ${formatThin(g.width_mm ?? 0, units)} wide for ${wanted}`;
  return [test, g.depth_mm && t`${formatThin(g.depth_mm, units)} deep`].filter(Boolean).join(', ') + '.';
}

/** A row of the log in a sentence. */
export function saysOf(e: LogEntry, units: Units): ReactNode {
  if (e.damaged) return t`This record can't be read. You can delete it.`;
  const says = e.says?.length ? `: ${e.says.join(', ')}.` : '.';
  switch (e.kind) {
    case 'cut': {
      if (!e.cut) return t`Cut.`;
      const c = e.cut;
      const how = [
        c.form && c.depth_mm ? `${formWords[c.form]} ${t`${formatSetting(c.depth_mm, units)} deep`}` : '',
        c.bevel_deg ? t`tilted ${trim(c.bevel_deg, 1)}°` : '',
        c.miter_deg ? t`mitered ${trim(c.miter_deg, 1)}°` : '',
        c.pieces > 1 ? t`${c.pieces} pieces` : '',
        e.saw_name ? t`on ${e.saw_name}` : '',
        c.height_mm ? t`blade height ${formatSetting(c.height_mm, units)}` : '',
      ].filter(Boolean);
      const more = [
        c.other_splinters && c.other_splinters !== 'none'
          ? t`${splinterSaid[c.other_splinters]} on the other face`
          : '',
        c.effort && c.effort !== 'normal' ? t`fed ${effortWords[c.effort]}` : '',
        c.noise && c.noise !== 'usual' ? noiseWords[c.noise] : '',
        c.sec_per_stroke
          ? t`${trim(c.sec_per_stroke, 1)} s per stroke`
          : c.seconds
            ? t`${trim(c.seconds, 1)} s per piece`
            : '',
        c.moisture && c.moisture !== 'dry' ? t`${wordOf(c.moisture)} stock` : '',
      ].filter(Boolean);
      return (
        <>
          {cutWords[c.direction]} {formatLength(c.thickness_mm, units)} {c.material_name},{' '}
          {[formatRun(c.metres, units), ...how].join(', ')}:{' '}
          <b>{t`cut edge ${wallWords[c.wall] ?? c.wall}`}</b>,{' '}
          {[splinterSaid[c.splinters], ...more].join(', ')}.
        </>
      );
    }
    case 'mounted':
      return e.saw_name ? t`Mounted on ${e.saw_name}.` : t`Mounted.`;
    case 'washed':
      return t`Cleaned${says.replace(': in', ' in')}`;
    case 'sharpened':
      return t`Back, sharpened${came(e, units)}`;
    case 'returned':
      return t`Back, not sharpened${came(e, units)}`;
    case 'sent':
      return t`Sent out${says.replace(': to', ' to')}`;
    case 'judged':
      return t`Noted${says}`;
    case 'inspected':
      return t`Inspected${says}`;
    case 'mended':
      return t`Repaired and inspected${says}`;
    case 'noted':
      return t`Noted:`;
    case 'compared':
      return t`Compared${says}`;
    case 'traced':
      return t`Fault diagnosed${says}`;
    case 'grooved':
      return e.groove ? grooved(e.groove, units) : t`A groove.`;
    case 'renewed':
      return t`New parts in the set: ${[...(e.says ?? []), ...(e.renewed_mm ?? []).map((mm) => formatThin(mm, units))].join(', ')}.`;
    case 'struck':
      return e.amended_by ? t`An entry was deleted and replaced.` : t`An entry was deleted.`;
    case 'retired':
      return t`Retired: ${retiredWords[e.reason ?? ''] ?? e.reason ?? ''}.`;
    case 'restored':
      return t`Put back in the rack.`;
    case 'dismounted':
      return e.saw_name ? t`Taken off ${e.saw_name}.` : t`Taken off.`;
    case 'moved':
      return e.saw_name ? t`${e.saw_name} was moved or bumped.` : t`The saw was moved or bumped.`;
    default:
      return `${[truingWords[e.kind], e.saw_name && t`on ${e.saw_name}`].filter(Boolean).join(' ')}: ${formatFigure(e.figure ?? 0, e.figure_unit ?? 'mm', units)}, ${wordOf(e.verdict)}.`;
  }
}
