/** Roles and kinds of cut in words. */
import { t } from '@lingui/core/macro';
import type { Role, SignOffCut } from '../../api/types';

export const roleWords: Record<Role, string> = {
  viewer: t`viewer`,
  learner: t`learner`,
  worker: t`worker`,
  owner: t`owner`,
};

export const roleMay: [Role, string][] = [
  ['viewer', t`Looks, and weighs cuts`],
  ['learner', t`Works at the saws and logs it`],
  ['worker', t`Changes the rack and the records too`],
  ['owner', t`Runs the shop`],
];

/** The same, said to who is invited. */
export const invitedTo: Record<Role, string> = {
  viewer: t`You are invited to look on, and to weigh cuts.`,
  learner: t`You are invited to work at the saws.`,
  worker: t`You are invited to work at the saws, and to keep rack and records.`,
  owner: t`You are invited to run the shop.`,
};

export const duties: [SignOffCut, string][] = [
  ['rip', t`Rips`],
  ['crosscut', t`Crosscuts`],
  ['sheet', t`Sheets`],
  ['groove', t`Grooves`],
];
