/** Words of the stages, and of a row. */
import { t } from '@lingui/core/macro';
import type { JobRow, JobStage, Units } from '../api/types';
import { formatSetting, trim } from '../measure/format';
import { formWords } from '../drawings/words';
import { finishWord } from './sentence';

export const stages: Record<JobStage, string> = {
  'by rule': t`by rule of thumb`,
  rough: t`rough`,
  rips: t`rips`,
  crosscuts: t`crosscuts`,
  sheets: t`sheets`,
  joints: t`joints`,
};

export const stageOrder: JobStage[] = ['rough', 'rips', 'crosscuts', 'sheets', 'joints'];

const cutWords = { rip: t`rip`, crosscut: t`crosscut`, sheet: t`sheet` } as const;

type Sized = Pick<
  JobRow,
  | 'thickness_mm'
  | 'width_mm'
  | 'length_mm'
  | 'direction'
  | 'finish'
  | 'form'
  | 'depth_mm'
  | 'bevel_deg'
  | 'miter_deg'
>;

/** `38 mm × 64 mm × 1180 mm`, in inches to what a rule has */
export const sizeOf = (r: Sized, units: Units) =>
  [r.thickness_mm, r.width_mm, r.length_mm].map((l) => (l > 0 ? formatSetting(l, units) : '?')).join(' × ');

/** What is done to a row, in a few words. */
export const doneTo = (r: Sized, units: Units) =>
  [
    r.form && r.form !== 'through'
      ? t`${formWords[r.form]}, ${formatSetting(r.depth_mm ?? 0, units)} deep`
      : cutWords[r.direction],
    finishWord[r.finish],
    r.bevel_deg ? t`bevel ${trim(r.bevel_deg, 1)}°` : '',
    r.miter_deg ? t`miter ${trim(r.miter_deg, 1)}°` : '',
  ]
    .filter(Boolean)
    .join(', ');
