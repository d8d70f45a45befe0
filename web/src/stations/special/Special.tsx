/** Cuts that need a set-up of their own: their figures, their passes, and how the work is held. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { ProblemError } from '../../api/client';
import { useSpecialCut } from '../../api/special';
import { useBlades, useSaws } from '../../api/rack';
import { useMaterials } from '../../api/shop';
import type { SpecialCut, SpecialCutAsk, SpecialKind, Units } from '../../api/types';
import { useAddress } from '../../ui/address';
import { usePreferences } from '../../ui/preferences';
import { SpecialDrawing } from '../../drawings/SpecialDrawing';
import { specOf } from '../../drawings/words';
import { formatSetting } from '../../measure/format';
import { Coming } from '../../ui/Arriving';
import { CheckField, NumberField, SelectField } from '../../ui/Fields';
import { FirstThings } from '../../ui/FirstThings';
import { LengthField } from '../../ui/LengthField';
import { Trouble } from '../../ui/Notice';
import { Verdict } from '../../ui/Verdict';
import { Findings } from '../../cut/Findings';

const kindWords: Record<SpecialKind, string> = {
  taper: t`Taper`,
  stopped: t`Stopped cut`,
  plunge: t`Plunge cut`,
  cove: t`Cove`,
  hopper: t`Hopper`,
  crown: t`Crown molding`,
  resaw: t`Resaw`,
  round: t`Round stock`,
};

type Sizes = Omit<SpecialCutAsk, 'kind' | 'saw_id' | 'blade_id' | 'units' | 'material' | 'ends'>;
type LengthKey = Exclude<keyof Sizes, 'slope_deg' | 'sides' | 'spring_deg' | 'corner_deg'>;

/** What each cut starts with, in millimeters and degrees. */
const begin: Record<SpecialKind, Sizes> = {
  taper: { width_mm: 60, narrow_mm: 30, length_mm: 700 },
  stopped: { thickness_mm: 19, height_mm: 8, length_mm: 300 },
  plunge: { thickness_mm: 18, height_mm: 21, length_mm: 400 },
  cove: { width_mm: 60, depth_mm: 12, thickness_mm: 25 },
  hopper: { slope_deg: 60, sides: 4 },
  crown: { spring_deg: 38, corner_deg: 90 },
  resaw: { width_mm: 120, length_mm: 900, thickness_mm: 30 },
  round: { thickness_mm: 30 },
};

const fields: Record<SpecialKind, [LengthKey, string, string?][]> = {
  taper: [
    ['width_mm', t`Wide end`],
    ['narrow_mm', t`Narrow end`],
    ['length_mm', t`Length of the taper`],
    ['known_mm', t`Offset wanted at`, t`leave empty for the whole length`],
  ],
  stopped: [
    ['thickness_mm', t`Stock thickness`],
    ['height_mm', t`Blade height`],
    ['length_mm', t`Length of the cut`],
  ],
  plunge: [
    ['thickness_mm', t`Stock thickness`],
    ['height_mm', t`Cutting depth`],
    ['length_mm', t`Length of the opening`],
  ],
  cove: [
    ['width_mm', t`Width of the cove`],
    ['depth_mm', t`Depth of the cove`],
    ['thickness_mm', t`Stock thickness`],
  ],
  hopper: [],
  crown: [],
  resaw: [
    ['width_mm', t`Board width`],
    ['thickness_mm', t`Board thickness`],
    ['length_mm', t`Board length`],
  ],
  round: [['thickness_mm', t`Diameter`]],
};

const angles: Partial<Record<SpecialKind, ['slope_deg' | 'spring_deg' | 'corner_deg', string, string][]>> = {
  hopper: [['slope_deg', t`Slope of the sides`, t`from horizontal, 90 is upright`]],
  crown: [
    ['spring_deg', t`Spring angle`, t`38 and 45 are usual`],
    ['corner_deg', t`Corner of the room`, t`90 is square`],
  ],
};

export function Special() {
  const { units } = usePreferences();
  const [params, change] = useAddress();
  const asked = params.get('cut') as SpecialKind | null;
  const kind: SpecialKind = asked && asked in kindWords ? asked : 'taper';
  const all = useSaws();
  const rack = useBlades();
  const materials = useMaterials();
  const [sizes, setSizes] = useState(begin);
  const [ends, setEnds] = useState(false);
  const [chosen, setChosen] = useState<string>();
  const [wood, setWood] = useState('red-oak');
  const may = (all.data ?? []).filter((s) => s.special_cuts.includes(kind));
  const saw = may.find((s) => s.id === params.get('saw')) ?? may.find((s) => s.mounted_blade_id) ?? may[0];
  const fits = rack.data?.find(
    (b) => b.make === 'toothed' && b.teeth > 0 && saw && Math.abs(b.diameter_mm - saw.diameter_mm) < 2,
  );
  const blade = chosen ?? saw?.mounted_blade_id ?? fits?.id;
  const mine = sizes[kind];
  const put = (part: Partial<Sizes>) => setSizes((it) => ({ ...it, [kind]: { ...it[kind], ...part } }));
  const ask: SpecialCutAsk | undefined = saw &&
    rack.data && {
      kind,
      saw_id: saw.id,
      blade_id: blade,
      units,
      ...mine,
      ...(kind === 'resaw' ? { material: wood } : {}),
      ...(kind === 'stopped' ? { ends } : {}),
    };
  const plan = useSpecialCut(ask);
  const refused = plan.error instanceof ProblemError ? plan.error : undefined;
  const problem = (field: string) => (refused?.field === field ? refused.message : undefined);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Typography variant="h1">{t`Special cuts`}</Typography>
      <ToggleButtonGroup
        exclusive
        value={kind}
        aria-label={t`Special cut`}
        onChange={(_, v: SpecialKind | null) => {
          if (!v) return;
          setChosen(undefined);
          change((now) => now.set('cut', v));
        }}
        sx={{
          my: 1,
          flexWrap: 'wrap',
          rowGap: 0.5,
          '& .MuiToggleButtonGroup-grouped': { borderLeft: '1px solid', borderColor: 'inherit', ml: 0 },
        }}
      >
        {(Object.keys(kindWords) as SpecialKind[]).map((k) => (
          <ToggleButton key={k} value={k} sx={{ px: { xs: 1.25, sm: 2 }, minHeight: 44 }}>
            {kindWords[k]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {(all.data === undefined || rack.data === undefined) && <Coming of={[all, rack]} drawing />}
      {all.data?.length === 0 && <FirstThings missing="saw" />}
      {all.data && all.data.length > 0 && !saw && (
        <Box sx={{ fontSize: 17 }}>
          {t`None of your saws makes this cut. Choose another cut, or add a saw.`}
        </Box>
      )}
      {saw && rack.data && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0, 4fr) minmax(0, 8fr)' },
            columnGap: 4,
            rowGap: 2,
            borderTop: '2px solid',
            borderColor: 'text.primary',
            pt: 1.5,
          }}
        >
          <Box sx={{ display: 'grid', gap: 1.75, alignContent: 'start' }}>
            <SelectField
              label={t`Saw`}
              value={saw.id}
              choices={may.map((s) => [s.id, s.name] as const)}
              onChoose={(id) => {
                setChosen(undefined);
                change((now) => now.set('saw', id));
              }}
              problem={problem('saw_id')}
            />
            <SelectField
              label={t`Blade`}
              value={blade ?? ''}
              choices={[
                ...(blade ? [] : [['', t`Choose a blade`] as const]),
                ...rack.data
                  .filter((b) => b.teeth > 0 && b.make === 'toothed')
                  .map((b) => [b.id, `${b.name}: ${specOf(b, units)}`] as const),
              ]}
              onChoose={(id) => setChosen(id || undefined)}
              problem={problem('blade_id')}
            />
            {kind === 'resaw' && (
              <SelectField
                label={t`Wood`}
                value={wood}
                choices={(materials.data ?? [])
                  .filter((m) => m.kind === 'softwood' || m.kind === 'hardwood')
                  .map((m) => [m.id, m.name] as const)}
                onChoose={setWood}
                problem={problem('material')}
              />
            )}
            {fields[kind].map(([key, label, hint]) => (
              <LengthField
                key={kind + key}
                label={label}
                mm={mine[key]}
                units={units}
                live
                onLength={(mm) => put({ [key]: mm })}
                onClear={key === 'known_mm' ? () => put({ known_mm: undefined }) : undefined}
                problem={problem(key)}
                hint={hint}
              />
            ))}
            {(angles[kind] ?? []).map(([key, label, hint]) => (
              <NumberField
                key={kind + key}
                label={label}
                unit={t`degrees`}
                value={mine[key]}
                onNumber={(deg) => put({ [key]: deg })}
                problem={problem(key)}
                hint={hint}
              />
            ))}
            {kind === 'hopper' && (
              <NumberField
                label={t`Number of sides`}
                value={mine.sides}
                onNumber={(n) => put({ sides: n === undefined ? undefined : Math.round(n) })}
                problem={problem('sides')}
              />
            )}
            {kind === 'stopped' && (
              <CheckField label={t`Stops at both ends`} value={ends} onCheck={setEnds} />
            )}
          </Box>
          <Box sx={{ minWidth: 0 }}>
            {plan.error && <Trouble>{plan.error.message}</Trouble>}
            {ask && plan.data && !plan.error && plan.data.kind === kind && (
              <Answer ask={ask} plan={plan.data} units={units} radius={radiusOf(rack.data, plan.data)} />
            )}
          </Box>
        </Box>
      )}
    </Box>
  );
}

const radiusOf = (rack: { id: string; diameter_mm: number }[], plan: SpecialCut) =>
  (rack.find((b) => b.id === plan.blade_id)?.diameter_mm ?? 254) / 2;

interface AnswerProps {
  ask: SpecialCutAsk;
  plan: SpecialCut;
  units: Units;
  radius: number; // of the blade, mm
}

function Answer({ ask, plan, units, radius }: AnswerProps) {
  return (
    <Box component="section" aria-label={t`Settings`}>
      {plan.stop && (
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline', fontSize: 17, mb: 1 }}>
          <Verdict verdict="stop" size={16} />
          <span>
            {plan.stop} <b>{plan.way_out}</b>
          </span>
        </Box>
      )}
      <Box sx={{ mb: 1 }}>
        <Findings findings={plan.findings.filter((f) => f.why !== plan.stop)} />
      </Box>
      {plan.figures.length > 0 && (
        <>
          <SpecialDrawing ask={ask} plan={plan} radius={radius} />
          <Box
            component="dl"
            sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 4, rowGap: 1, m: 0, my: 1.5 }}
          >
            {plan.figures.map((f) => (
              <Box key={f.name} sx={{ display: 'flex', flexDirection: 'column-reverse', maxWidth: 220 }}>
                <Box component="dt" sx={{ fontSize: 14, color: 'text.secondary', lineHeight: 1.2 }}>
                  {f.name}
                </Box>
                <Box component="dd" sx={{ m: 0, fontSize: 26, fontWeight: 700, lineHeight: 1.15 }}>
                  {f.says}
                </Box>
              </Box>
            ))}
          </Box>
        </>
      )}
      {plan.passes.length > 0 && (
        <Box
          component="ol"
          aria-label={t`Passes`}
          sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, listStyle: 'none', m: 0, p: 0, mb: 1.5 }}
        >
          {plan.passes.map((p) => (
            <Box
              component="li"
              key={p.says}
              sx={{ border: '1.5px solid', borderColor: 'divider', px: 1, py: 0.5 }}
            >
              <Box sx={{ fontSize: 13, color: 'text.secondary', lineHeight: 1.1 }}>{p.says}</Box>
              <b>{formatSetting(p.height_mm, units)}</b>
            </Box>
          ))}
        </Box>
      )}
      <Box component="ol" sx={{ m: 0, pl: 3 }}>
        {plan.steps.map((d) => (
          <Box component="li" key={d} sx={{ fontSize: 17, lineHeight: 1.4, mb: 0.5 }}>
            {d}
          </Box>
        ))}
      </Box>
      {plan.never.length > 0 && (
        <Box
          component="ul"
          aria-label={t`Never`}
          sx={{ m: 0, mt: 1, pl: 2, borderLeft: '4px solid', borderColor: 'text.primary', listStyle: 'none' }}
        >
          {plan.never.map((n) => (
            <Box component="li" key={n} sx={{ fontWeight: 650, lineHeight: 1.45 }}>
              {n}
            </Box>
          ))}
        </Box>
      )}
      <Box sx={{ mt: 1.5, fontSize: 15, color: 'text.secondary' }}>{plan.cautions.join(' ')}</Box>
    </Box>
  );
}
