/** The words of the craft as sentences have them. Apart from what they mean, which is fetched when asked for. */
import { t } from '@lingui/core/macro';
import type { TermId } from '../drawings/TermPicture';

/** How each of them is written inside a sentence, one way after another. */
export const spoken: Record<TermId, string> = {
  arc: t`arc`,
  bite: t`thin chips|thick chips|thinner chips|thicker chips|too thin a chip|too thick a chip`,
  'burn-risk': t`burn risk`,
  'feed-range': t`feed range|feed ranges`,
  heel: t`heel|heeled`,
  hook: t`hook|strong hook|negative hook`,
  kerf: t`kerf|kerfs`,
  pitch: t`pitchy|some pitch|pitch on it|pitch is caked|pitch hides`,
  proud: t`just proud|proud`,
  raker: t`raker|rakers`,
  room: '',
  'run-out': t`run-out`,
  'side-clearance': t`side clearance`,
  'zero-clearance': t`zero-clearance insert|zero clearance|zero-clearance`,
};
