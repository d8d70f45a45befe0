/** What a blade is, in the field's words. */
import { wordOf } from './codeWords';
import { t } from '@lingui/core/macro';
import type { Blade, Cut, Material, Saw, Units } from '../api/types';
import { formatLength, formatThin } from '../measure/format';

export const grindWords = {
  FTG: t`FTG (flat top)`,
  ATB: t`ATB (alternate top bevel)`,
  HIATB: t`high alternate bevel`,
  ATBR: t`ATB+R (alternate top bevel with raker)`,
  TCG: t`TCG (triple chip)`,
  ONEWAY: t`one-way bevel`,
  CONICAL: t`conical`,
} as const;

export const grindShort = {
  FTG: 'FTG',
  ATB: 'ATB',
  HIATB: t`high ATB`,
  ATBR: 'ATB+R',
  TCG: 'TCG',
  ONEWAY: t`one-way`,
  CONICAL: t`conical`,
} as const;

export const makeWords = {
  toothed: t`toothed blade`,
  dado: t`dado stack`,
  scoring: t`scoring blade`,
  diamond: t`diamond wheel`,
  abrasive: t`abrasive wheel`,
} as const;

export const supportWords = {
  open: t`open`,
  tape: t`taped`,
  'zero-clearance': t`zero-clearance throat plate`,
  backer: t`against a backer`,
  scored: t`scored first`,
  'scoring-blade': t`scoring blade`,
  spare: t`doesn't matter`,
} as const;

export const directionWords = { rip: t`Rip`, crosscut: t`Crosscut`, sheet: t`Cut sheet of` } as const;

export const formWords = {
  through: t`all the way through`,
  groove: t`as a groove`,
  rabbet: t`as a rabbet`,
  cheek: t`as a tenon cheek`,
  fold: t`as a kerf to fold along`,
} as const;

type Spec = Pick<Blade, 'teeth' | 'grind' | 'hook_deg' | 'kerf_mm' | 'make'> & { hook_known?: boolean };

const hook = (b: Spec) => (b.hook_known === false ? '?' : `${sign(b.hook_deg)}°`);

const sign = (deg: number) => (deg > 0 ? `+${deg}` : deg < 0 ? `−${-deg}` : '0');

/** `24 FTG, +20°` */
export function shortSpecOf(b: Spec): string {
  return b.grind ? `${b.teeth} ${grindShort[b.grind]}, ${hook(b)}` : makeWords[b.make];
}

/** `24 FTG, hook +20°, kerf 3.2 mm` */
export function specOf(b: Spec, units: Units): string {
  const kerf = t`kerf ${formatThin(b.kerf_mm, units)}`;
  if (!b.grind) return `${makeWords[b.make]}, ${kerf}`;
  return t`${b.teeth} ${grindShort[b.grind]}, hook ${hook(b)}, ${kerf}`;
}

/** The cut as a plain sentence. */
export function cutSaid(cut: Cut, saw: Saw, material: Material | undefined, units: Units): string {
  const parts = [
    `${directionWords[cut.direction]} ${formatLength(cut.thickness_mm, units)} ${material?.name ?? cut.material}`,
    t`${formatLength(cut.length_mm, units)} long and ${formatLength(cut.width_mm, units)} wide`,
    formWords[cut.form ?? 'through'],
    cut.depth_mm ? t`${formatLength(cut.depth_mm, units)} deep` : '',
    cut.miter_deg ? t`mitered ${cut.miter_deg}°` : '',
    cut.bevel_deg ? t`tilted ${cut.bevel_deg}°` : '',
    t`on the ${saw.name}`,
    t`${wordOf(cut.finish)} face`,
    cut.piece_mm ? t`pieces of ${formatLength(cut.piece_mm, units)}` : '',
    cut.pieces && cut.pieces > 1 ? t`${cut.pieces} pieces` : '',
    cut.moisture && cut.moisture !== 'dry' ? t`${wordOf(cut.moisture)} stock` : '',
    cut.moves ? t`stock with tension` : '',
  ];
  return `${parts.filter(Boolean).join(', ')}.`;
}

/** The cut in two lines of a phone: what cannot be guessed, and not its width. */
export function cutBrief(cut: Cut, saw: Saw, material: Material | undefined, units: Units): string {
  const parts = [
    `${directionWords[cut.direction]} ${formatLength(cut.thickness_mm, units)} ${material?.name ?? cut.material}`,
    cut.pieces && cut.pieces > 1 ? t`${cut.pieces} pieces` : '',
    t`${formatLength(cut.length_mm, units)} long`,
    cut.form && cut.form !== 'through' ? formWords[cut.form] : '',
    cut.form && cut.form !== 'through' && cut.depth_mm ? t`${formatLength(cut.depth_mm, units)} deep` : '',
    cut.miter_deg ? t`mitered ${cut.miter_deg}°` : '',
    cut.bevel_deg ? t`tilted ${cut.bevel_deg}°` : '',
    wordOf(cut.finish),
  ];
  return `${parts.filter(Boolean).join(', ')} · ${saw.name}`;
}

/** A sentence with its first letter large. */
export const upper = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);
