/** The words for what the contract has codes for and pages name inside a sentence. */
import { t } from '@lingui/core/macro';

const words: Record<string, string> = {
  clear: t`clear`,
  caution: t`caution`,
  stop: t`stop`,
  underside: t`bottom face`,
  'top face': t`top face`,
  'back edge': t`back edge`,
  'end edge': t`end edge`,
  left: t`left`,
  right: t`right`,
  roomy: t`roomy`,
  fair: t`fair`,
  tight: t`tight`,
  shut: t`shut`,
  rough: t`rough`,
  hidden: t`hidden`,
  show: t`show`,
  fine: t`fine`,
  dry: t`dry`,
  wet: t`wet`,
  frozen: t`frozen`,
  excellent: t`excellent`,
  good: t`good`,
  poor: t`poor`,
  reject: t`reject`,
};

/** A code in the words of the page's language; one without a word stands for itself. */
export const wordOf = (code: string | undefined) => (code === undefined ? '' : (words[code] ?? code));
