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
  ['viewer', t`Looks and compares cuts`],
  ['learner', t`Works at the saws and logs cuts`],
  ['worker', t`Also changes blades and records`],
  ['owner', t`Manages the shop`],
];

/** The same, said to who is invited. */
export const invitedTo: Record<Role, string> = {
  viewer: t`You are invited to look and to compare cuts.`,
  learner: t`You are invited to work at the saws.`,
  worker: t`You are invited to work at the saws and to manage blades and records.`,
  owner: t`You are invited to manage the shop.`,
};

export const duties: [SignOffCut, string][] = [
  ['rip', t`Rips`],
  ['crosscut', t`Crosscuts`],
  ['sheet', t`Sheets`],
  ['groove', t`Grooves`],
];
