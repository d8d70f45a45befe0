/** What the words of the cut’s sentence can say. */
import { t } from '@lingui/core/macro';
import type { Finish, Material } from '../api/types';
import type { Choice } from '../ui/ChoiceMenu';

export const finishes: Choice<Finish>[] = [
  { value: 'rough', name: t`rough: to be cut or planed again` },
  { value: 'hidden', name: t`hidden: glued or out of sight` },
  { value: 'show', name: t`show: visible, light sanding only` },
  { value: 'fine', name: t`fine: ready off the saw` },
];
export const finishWord: Record<Finish, string> = {
  rough: t`rough face`,
  hidden: t`hidden face`,
  show: t`show face`,
  fine: t`fine face`,
};
export const kinds: Record<Material['kind'], string> = {
  softwood: t`Softwood`,
  hardwood: t`Hardwood`,
  plywood: t`Plywood`,
  composite: t`MDF and particleboard`,
  laminate: t`Melamine and laminate`,
  nailed: t`By rule, no feed range`,
  'soft-metal': t`By rule, no feed range`,
  plastic: t`By rule, no feed range`,
  'solid-surface': t`By rule, no feed range`,
  'cement-board': t`By rule, no feed range`,
  mineral: t`By rule, no feed range`,
  steel: t`By rule, no feed range`,
};

const inch = 25.4;
export const picks = {
  mm: {
    t: [6, 12, 18, 25, 38, 50],
    w: [50, 90, 120, 300, 610],
    l: [600, 900, 1200, 1800, 2440],
    d: [3, 6, 9, 12, 15],
    p: [50, 100, 300, 450, 600],
  },
  in: {
    d: [0.125, 0.25, 0.375, 0.5, 0.75].map((x) => x * inch),
    p: [2, 4, 12, 18, 24].map((x) => x * inch),
    t: [0.25, 0.5, 0.75, 1, 1.5, 2].map((x) => x * inch),
    w: [2, 3.5, 4.75, 12, 24].map((x) => x * inch),
    l: [24, 36, 48, 72, 96].map((x) => x * inch),
  },
};
