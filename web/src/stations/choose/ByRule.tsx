/** A material without a feed window: which blade or wheel, on which saw, with what, and what never. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Blade, Material, Plan, Units } from '../../api/types';
import { specOf } from '../../drawings/words';
import { Verdict } from '../../ui/Verdict';
import { Advices } from './Hold';
import { Worded } from '../../ui/Worded';

interface Props {
  plan: Plan;
  material: Material | undefined;
  blade: Blade | undefined; // undefined where none of the rack may
  units: Units;
}

export function ByRule({ plan, material, blade, units }: Props) {
  const r = plan.by_rule;
  if (!r) return null;
  const rows: [string, string | undefined][] = [
    [t`Blade`, r.blade],
    [t`Saw`, r.saw],
    [t`Feed`, r.feed],
    [t`Lubricant`, r.lubricant],
  ];
  return (
    <Box component="section" aria-label={t`${material?.name ?? t`Material`} by rule`}>
      <Typography variant="h1" sx={{ '&::first-letter': { textTransform: 'uppercase' } }}>
        {material?.name}
      </Typography>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'baseline', flexWrap: 'wrap', mb: 1 }}>
        <Verdict verdict={!r.saw_may || !blade ? 'stop' : 'caution'} size={18} />
        <Box sx={{ fontWeight: 650 }}>
          {!r.saw_may ? (
            t`Not on this saw.`
          ) : blade ? (
            <Worded>{t`With ${blade.name}: ${specOf(blade, units)}.`}</Worded>
          ) : (
            t`You have no blade that can cut it.`
          )}
        </Box>
      </Box>
      <Typography sx={{ mb: 1, color: 'text.secondary' }}>
        {t`Chosen by rule. Corte has no feed range for this material.`}
      </Typography>
      <Box
        component="dl"
        sx={{
          m: 0,
          display: 'grid',
          gridTemplateColumns: 'auto 1fr',
          columnGap: 2,
          rowGap: 0.75,
          fontSize: 17,
        }}
      >
        {rows.map(
          ([k, v]) =>
            v && (
              <Box key={k} sx={{ display: 'contents' }}>
                <Box component="dt" sx={{ color: 'text.secondary' }}>
                  {k}
                </Box>
                <Box component="dd" sx={{ m: 0 }}>
                  <Worded>{v}</Worded>
                </Box>
              </Box>
            ),
        )}
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: { sm: '1fr 1fr' }, columnGap: 4, mt: 1.5 }}>
        <Lines name={t`Protection`} lines={r.protection} />
        <Lines name={t`Never`} lines={r.never} />
      </Box>
      {r.saw_may && blade && (
        <Box sx={{ mt: 1.5 }}>
          <Advices hold={plan.hold} />
        </Box>
      )}
      <Box
        component="ul"
        aria-label={t`Cautions`}
        sx={{ pl: 2.5, mt: 1.5, color: 'text.secondary', fontSize: 15 }}
      >
        {plan.cautions.map((c) => (
          <li key={c}>
            <Worded>{c}</Worded>
          </li>
        ))}
      </Box>
    </Box>
  );
}

function Lines({ name, lines }: { name: string; lines: string[] }) {
  return (
    <Box>
      <Typography variant="h3" component="h2">
        {name}
      </Typography>
      <Box component="ul" aria-label={name} sx={{ m: 0, pl: 2.5, lineHeight: 1.4 }}>
        {lines.map((l) => (
          <li key={l}>
            <Worded>{l}</Worded>
          </li>
        ))}
      </Box>
    </Box>
  );
}
