/** The kerf from its end; the groove's profile comes with the one blade, not with the list. */
import { useBlade } from '../../api/rack';
import type { Cut, Units } from '../../api/types';
import { EndView } from '../../drawings/EndView';

export function EndOf({ id, cut, units }: { id: string; cut: Cut; units: Units }) {
  const blade = useBlade(id);
  return blade.data ? <EndView blade={blade.data} cut={cut} units={units} /> : null;
}
