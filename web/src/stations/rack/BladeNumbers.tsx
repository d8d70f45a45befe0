/** A blade's numbers beyond those that stand on its drawing. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { Blade, Units } from '../../api/types';
import { grindWords, makeWords, upper } from '../../drawings/words';
import { coatingWords, keptForWords } from '../../drawings/recordWords';
import type { TermId } from '../../drawings/TermPicture';
import { formatLength, formatRun, formatThin, trim } from '../../measure/format';
import { Term } from '../../ui/Term';

interface Props {
  blade: Blade;
  saw: string | undefined; // that it is on
  units: Units;
}

/** Names that open their meaning. */
const terms: Record<string, TermId> = {
  [t`Hook`]: 'hook',
  [t`Side clearance`]: 'side-clearance',
  [t`Groove bottom`]: 'raker',
};

export function BladeNumbers({ blade: b, saw, units }: Props) {
  const c = b.condition;
  const rows: [string, string | undefined][] = [
    [t`What`, makeWords[b.make]],
    [t`Teeth`, b.teeth ? t`${b.teeth}, ${formatLength(b.pitch_mm, units)} apart` : t`none`],
    [
      t`Grind`,
      b.grind && [grindWords[b.grind], b.group && t`groups of ${b.group}`].filter(Boolean).join(', '),
    ],
    [t`Hook`, b.grind && (b.hook_known ? `${trim(b.hook_deg, 1)}°` : t`not recorded`)],
    [t`Top bevel`, b.bevel_deg ? `${trim(b.bevel_deg, 1)}°` : undefined],
    [
      t`Side clearance`,
      b.side_clearance_mm ? t`${formatThin(b.side_clearance_mm, units)} a side` : undefined,
    ],
    [t`Gullets`, b.teeth ? t`${formatLength(b.gullet_depth_mm, units)} deep` : undefined],
    [
      t`Groove bottom`,
      b.teeth
        ? b.groove.ridge_mm > 0.01
          ? t`leaves ${formatThin(b.groove.ridge_mm, units)} standing`
          : t`flat`
        : undefined,
    ],
    [t`Speed limit`, b.max_rpm ? t`${trim(b.max_rpm, 0)} rpm` : t`not recorded`],
    [t`Coating`, b.coating === 'none' ? undefined : coatingWords[b.coating]],
    ...b.features.map((f): [string, string] => [upper(f.name), f.why]),
    [t`Body slots`, b.slots ? String(b.slots) : undefined],
    [t`Carbide left`, b.carbide_mm ? formatThin(b.carbide_mm, units) : undefined],
    [t`Price`, b.price ? trim(b.price, 2) : undefined],
    [t`Set aside for`, [keptForWords[b.kept_for], b.nails && t`nail-rated`].filter(Boolean).join(', ')],
    [t`Location`, saw ? t`on ${saw}` : b.hangs || t`not recorded`],
    [
      t`Cut so far`,
      t`${formatRun(c.metres, units)} in ${plural(c.cuts, { one: '# log line', other: '# log lines' })}`,
    ],
    [t`Since cleaning`, formatRun(c.metres_since_wash, units)],
    [
      t`Since sharpening`,
      t`${formatRun(c.metres_since_sharpening, units)}, sharpened ${times(c.sharpenings + b.sharpened_before)}`,
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
                {terms[name] ? <Term of={terms[name]}>{name}</Term> : name}
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

const times = (n: number) => plural(n, { 0: 'never', 1: 'once', other: '# times' });
