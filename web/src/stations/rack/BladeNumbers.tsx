/** A blade's numbers beyond those that stand on its drawing. */
import Box from '@mui/material/Box';
import type { Blade, Units } from '../../api/types';
import { coatingWords, grindWords, keptForWords, makeWords, upper } from '../../drawings/words';
import { counted, formatLength, formatRun, formatThin, trim } from '../../measure/format';

interface Props {
  blade: Blade;
  saw: string | undefined; // that it is on
  units: Units;
}

export function BladeNumbers({ blade: b, saw, units }: Props) {
  const c = b.condition;
  const rows: [string, string | undefined][] = [
    ['What', makeWords[b.make]],
    ['Teeth', b.teeth ? `${b.teeth}, ${formatLength(b.pitch_mm, units)} apart` : 'none'],
    ['Grind', b.grind && grindWords[b.grind] + (b.group ? `, groups of ${b.group}` : '')],
    ['Hook', b.grind && (b.hook_known ? `${trim(b.hook_deg, 1)}°` : 'not read')],
    ['Top bevel', b.bevel_deg ? `${trim(b.bevel_deg, 1)}°` : undefined],
    ['Side clearance', b.side_clearance_mm ? `${formatThin(b.side_clearance_mm, units)} a side` : undefined],
    ['Gullets', b.teeth ? `${formatLength(b.gullet_depth_mm, units)} deep` : undefined],
    [
      'Groove bottom',
      b.teeth
        ? b.groove.ridge_mm > 0.01
          ? `leaves ${formatThin(b.groove.ridge_mm, units)} standing`
          : 'flat'
        : undefined,
    ],
    ['Speed limit', b.max_rpm ? `${trim(b.max_rpm, 0)} rpm` : 'not noted: read it off the plate'],
    ['Coating', b.coating === 'none' ? undefined : coatingWords[b.coating]],
    ...b.features.map((f): [string, string] => [upper(f.name), f.why]),
    ['Body slots', b.slots ? String(b.slots) : undefined],
    ['Carbide left', b.carbide_mm ? formatThin(b.carbide_mm, units) : undefined],
    ['Price', b.price ? trim(b.price, 2) : undefined],
    ['Kept for', keptForWords[b.kept_for] + (b.nails ? ', nail-rated' : '')],
    ['Hangs', saw ? `on ${saw}` : b.hangs || 'not said'],
    ['Cut so far', `${formatRun(c.metres, units)} in ${counted(c.cuts, 'log line')}`],
    ['Since washing', formatRun(c.metres_since_wash, units)],
    [
      'Since sharpening',
      `${formatRun(c.metres_since_sharpening, units)}, sharpened ${times(c.sharpenings + b.sharpened_before)}`,
    ],
  ];
  return (
    <Box
      component="dl"
      sx={{ m: 0, display: 'grid', gridTemplateColumns: 'auto 1fr', columnGap: 2, fontSize: 15 }}
    >
      {rows.map(
        ([name, value]) =>
          value && (
            <Box
              key={name}
              sx={{
                display: 'contents',
                '& > *': { py: 0.4, borderTop: '1px solid', borderColor: 'divider' },
              }}
            >
              <Box component="dt" sx={{ color: 'text.secondary' }}>
                {name}
              </Box>
              <Box component="dd" sx={{ m: 0 }}>
                {value}
              </Box>
            </Box>
          ),
      )}
    </Box>
  );
}

const times = (n: number) => (n === 0 ? 'never' : n === 1 ? 'once' : `${n} times`);
