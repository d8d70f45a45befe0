/** What a blade is, in the field's words. */
import type { Blade, Cut, Material, Saw, Units } from '../api/types';
import { formatLength, formatThin } from '../measure/format';

export const grindWords = {
  FTG: 'flat top',
  ATB: 'alternate bevel',
  HIATB: 'high alternate bevel',
  ATBR: 'alternate bevel with raker',
  TCG: 'triple chip',
  ONEWAY: 'one-way bevel',
  CONICAL: 'conical',
} as const;

export const grindShort = {
  FTG: 'FTG',
  ATB: 'ATB',
  HIATB: 'high ATB',
  ATBR: 'ATB+R',
  TCG: 'TCG',
  ONEWAY: 'one-way',
  CONICAL: 'conical',
} as const;

export const keptForWords = {
  general: 'general work',
  rip: 'ripping',
  crosscut: 'crosscuts',
  sheet: 'sheet goods',
  joints: 'joints',
  metal: 'metal',
  plastic: 'plastics',
  dirty: 'dirty work',
  mineral: 'tile and stone',
} as const;

export const makeWords = {
  toothed: 'toothed blade',
  dado: 'dado set',
  scoring: 'scoring blade',
  diamond: 'diamond wheel',
  abrasive: 'abrasive wheel',
} as const;

export const coatingWords = {
  none: 'none',
  nitride: 'hard nitride, gold in colour',
  slick: 'slick, non-stick',
} as const;

export const carbideWords = {
  unknown: 'not known',
  tough: 'tough, for knocks and nails',
  usual: 'usual',
  hard: 'hard and fine-grained',
} as const;

export const gulletWords = {
  unknown: 'not said',
  round: 'wide and round',
  hooked: 'hooked, the usual',
  narrow: 'narrow',
} as const;

export const sawWords = {
  table: 'table saw',
  miter: 'miter saw',
  circular: 'circular saw',
} as const;

export const retiredWords: Record<string, string> = {
  cracked: 'cracked plate',
  unmendable: 'cannot be mended',
  'worn-out': 'too little carbide left',
  bent: 'bent or blued plate',
  lost: 'lost',
  sold: 'sold or given away',
  other: 'another reason',
};

export const splinterWords = { none: 'none', fuzz: 'fuzz', splinters: 'some', torn: 'torn' } as const;
export const effortWords = { easy: 'easily', normal: 'as usual', hard: 'hard' } as const;
export const noiseWords = { smooth: 'smooth', usual: 'usual', loud: 'loud' } as const;

export const supportWords = {
  open: 'open',
  tape: 'taped',
  'zero-clearance': 'zero-clearance insert',
  backer: 'against a backer',
  scored: 'scored first',
  spare: 'of no account',
} as const;

export const directionWords = { rip: 'Rip', crosscut: 'Crosscut', sheet: 'Cut sheet of' } as const;

export const formWords = {
  through: 'right through',
  groove: 'as a groove',
  rabbet: 'as a rabbet',
  cheek: 'as a tenon cheek',
  fold: 'as a kerf to fold along',
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
  const kerf = `kerf ${formatThin(b.kerf_mm, units)}`;
  if (!b.grind) return `${makeWords[b.make]}, ${kerf}`;
  return `${b.teeth} ${grindShort[b.grind]}, hook ${hook(b)}, ${kerf}`;
}

/** The cut as a plain sentence. */
export function cutSaid(cut: Cut, saw: Saw, material: Material | undefined, units: Units): string {
  const parts = [
    `${directionWords[cut.direction]} ${formatLength(cut.thickness_mm, units)} ${material?.name ?? cut.material}`,
    `${formatLength(cut.length_mm, units)} long and ${formatLength(cut.width_mm, units)} wide`,
    formWords[cut.form ?? 'through'] + (cut.depth_mm ? ` ${formatLength(cut.depth_mm, units)} deep` : ''),
    cut.miter_deg ? `mitered ${cut.miter_deg}°` : '',
    cut.bevel_deg ? `tilted ${cut.bevel_deg}°` : '',
    `on the ${saw.name}`,
    `${cut.finish} face`,
    cut.piece_mm ? `pieces of ${formatLength(cut.piece_mm, units)}` : '',
    cut.pieces && cut.pieces > 1 ? `${cut.pieces} of them` : '',
    cut.moisture && cut.moisture !== 'dry' ? `${cut.moisture} stock` : '',
    cut.moves ? 'stock that moves' : '',
  ];
  return `${parts.filter(Boolean).join(', ')}.`;
}

/** The cut in two lines of a phone: what cannot be guessed, and not its width. */
export function cutBrief(cut: Cut, saw: Saw, material: Material | undefined, units: Units): string {
  const parts = [
    `${directionWords[cut.direction]} ${formatLength(cut.thickness_mm, units)} ${material?.name ?? cut.material}`,
    cut.pieces && cut.pieces > 1 ? `${cut.pieces} of them` : '',
    `${formatLength(cut.length_mm, units)} long`,
    cut.form && cut.form !== 'through'
      ? formWords[cut.form] + (cut.depth_mm ? ` ${formatLength(cut.depth_mm, units)} deep` : '')
      : '',
    cut.miter_deg ? `mitered ${cut.miter_deg}°` : '',
    cut.bevel_deg ? `tilted ${cut.bevel_deg}°` : '',
    cut.finish,
  ];
  return `${parts.filter(Boolean).join(', ')} · ${saw.name}`;
}

/** A sentence with its first letter large. */
export const upper = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);
