/** The words of the craft as sentences have them. Apart from what they mean, which is fetched when asked for. */
import { t } from '@lingui/core/macro';
import type { TermId } from '../drawings/TermPicture';

/** How each of them is written inside a sentence, one way after another. */
export const spoken: Record<TermId, string> = {
  arc: t`arc`,
  bite: t`thin chips|thick chips|thinner chips|thicker chips|too thin a chip|too thick a chip`,
  'burn-risk': t`burn risk`,
  'feed-range': t`feed range|feed ranges`,
  heel: t`toe-in|toe-out|toes in|toes out`,
  hook: t`hook|hook angle|high hook angle`,
  kerf: t`kerf|kerfs`,
  pitch: t`resin|resin buildup|some resin buildup`,
  proud: t`just above the stock`,
  raker: t`raker|rakers`,
  room: '',
  'run-out': t`run-out`,
  'side-clearance': t`side clearance`,
  'zero-clearance': t`zero-clearance throat plate|zero-clearance|zero clearance`,
};
