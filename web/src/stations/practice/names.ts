/** What the drills are called: the server says so too, but a page has its title before it answers. */
import { t } from '@lingui/core/macro';
import type { DrillName } from '../../api/types';

export const drillNames: Record<DrillName, string> = {
  feed: t`Feed the board`,
  feel: t`Feel the difference`,
  which: t`Which blade?`,
  read: t`Read a blade`,
  'set-up': t`Set up a saw`,
  wall: t`Read the cut`,
  before: t`Spot the danger`,
};
