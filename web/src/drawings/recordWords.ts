/** Words of what is recorded: of blades and saws, and how a cut came out. Apart from those of a cut, which the first page needs. */
import { t } from '@lingui/core/macro';

export const keptForWords = {
  general: t`general work`,
  rip: t`ripping`,
  crosscut: t`crosscuts`,
  sheet: t`sheet goods`,
  joints: t`joints`,
  metal: t`metal`,
  plastic: t`plastics`,
  dirty: t`dirty work`,
  mineral: t`tile and stone`,
} as const;

export const coatingWords = {
  none: t`none`,
  nitride: t`hard nitride, gold`,
  slick: t`slick, non-stick`,
} as const;

export const carbideWords = {
  unknown: t`unknown`,
  tough: t`tough, for knots and nails`,
  usual: t`usual`,
  hard: t`hard and fine-grained`,
} as const;

export const gulletWords = {
  unknown: t`not recorded`,
  round: t`wide and round`,
  hooked: t`hooked, the usual`,
  narrow: t`narrow`,
} as const;

export const sawWords = {
  table: t`table saw`,
  miter: t`miter saw`,
  circular: t`circular saw`,
} as const;

export const retiredWords: Record<string, string> = {
  cracked: t`cracked plate`,
  unmendable: t`can't be repaired`,
  'worn-out': t`too little carbide left`,
  bent: t`bent or blued plate`,
  lost: t`lost`,
  sold: t`sold or given away`,
  other: t`another reason`,
};

export const wallWords = { clean: t`clean`, brown: t`brown`, black: t`black` } as const;

export const splinterWords = {
  none: t`none`,
  fuzz: t`fuzzy grain`,
  splinters: t`some`,
  torn: t`tear-out`,
} as const;

export const effortWords = { easy: t`easily`, normal: t`as usual`, hard: t`hard` } as const;

export const noiseWords = { smooth: t`smooth`, usual: t`usual`, loud: t`loud` } as const;

export const stateWords: Record<string, string> = {
  fine: t`fine`,
  worn: t`worn`,
  pitchy: t`resin`,
  dull: t`dull`,
  unfit: t`unsafe`,
  away: t`away`,
};
