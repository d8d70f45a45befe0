/** Joints worked out for one blade: tenons, box joints, tails, sloping grooves, kerfs to fold along. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { ProblemError } from '../../api/client';
import { useJoint } from '../../api/choose';
import { useNote } from '../../api/log';
import { useBlades, useSaws } from '../../api/rack';
import type { JointAsk, JointKind, JointPlan, Units } from '../../api/types';
import { useAddress } from '../../ui/address';
import { usePreferences } from '../../ui/preferences';
import { JointDrawing } from '../../drawings/JointDrawing';
import { specOf } from '../../drawings/words';
import { formatSetting } from '../../measure/format';
import { Coming } from '../../ui/Arriving';
import { NumberField, SelectField } from '../../ui/Fields';
import { FirstThings } from '../../ui/FirstThings';
import { Verdict } from '../../ui/Verdict';
import { LengthField } from '../../ui/LengthField';
import { Trouble } from '../../ui/Notice';

const kindWords: Record<JointKind, string> = {
  tenon: t`Tenon`,
  box: t`Box joint`,
  tails: t`Dovetails`,
  slope: t`Slope`,
  fold: t`Fold`,
};

type Sizes = Omit<JointAsk, 'kind' | 'saw_id' | 'blade_id' | 'units'>;
type LengthKey = Exclude<keyof Sizes, 'fingers' | 'slope_deg' | 'bend_deg'>;

/** What each joint is begun with, in millimetres. */
const begin: Record<JointKind, Sizes> = {
  tenon: { stock_mm: 25, tenon_mm: 9, length_mm: 30 },
  box: { width_mm: 100, slot_mm: 6.4, room_mm: 0.1, stock_mm: 12 },
  tails: { stock_mm: 19 },
  slope: { edge_mm: 50, width_mm: 12, depth_mm: 8, slope_deg: 10 },
  fold: { stock_mm: 12, radius_mm: 150, bend_deg: 90 },
};

const fields: Record<JointKind, [LengthKey, string, string?][]> = {
  tenon: [
    ['stock_mm', t`Stock, thickness`],
    ['tenon_mm', t`Tenon, thickness`, t`mortise width minus the fit`],
    ['length_mm', t`Tenon, length`],
    ['off_mm', t`From the first face`, t`leave empty for the middle`],
  ],
  box: [
    ['width_mm', t`Board, width`],
    ['stock_mm', t`The other board, thickness`],
    ['slot_mm', t`Slot`],
    ['room_mm', t`Room for glue`],
    ['gap_mm', t`Gap of a test joint`, t`after a test; negative if tight`],
  ],
  tails: [['stock_mm', t`The other board, thickness`]],
  slope: [
    ['width_mm', t`Width`],
    ['depth_mm', t`Depth at the near side`],
    ['edge_mm', t`From the edge`],
  ],
  fold: [
    ['stock_mm', t`Sheet, thickness`],
    ['radius_mm', t`Outer radius`],
    ['skin_mm', t`Skin left`, t`leave empty for the usual`],
  ],
};

const optional = new Set<LengthKey>(['off_mm', 'gap_mm', 'skin_mm', 'stock_mm']);

export function Joints() {
  const { units } = usePreferences();
  const [params, change] = useAddress();
  const kind = (params.get('joint') as JointKind | null) ?? 'tenon';
  const saws = useSaws();
  const rack = useBlades();
  const [sizes, setSizes] = useState(begin);
  const [chosen, setChosen] = useState<string>();
  const tables = saws.data ?? [];
  const saw = tables.find((s) => s.id === params.get('saw')) ?? tables.find((s) => s.kind === 'table');
  const mine = sizes[kind];
  const put = (part: Partial<Sizes>) => setSizes((all) => ({ ...all, [kind]: { ...all[kind], ...part } }));
  const ask: JointAsk | undefined = saw && { kind, saw_id: saw.id, blade_id: chosen, units, ...mine };
  const plan = useJoint(ask);
  // The likeliest, as the server says, until one is chosen.
  const blade = rack.data?.find((b) => b.id === (chosen ?? plan.data?.blade_id));
  // Laid out with its first answer: which blade it is for comes with that.
  const ready = saws.data !== undefined && (!saw || (rack.data !== undefined && !plan.isPending));
  const refused = plan.error instanceof ProblemError ? plan.error : undefined;
  const problem = (field: string) => (refused?.field === field ? refused.message : undefined);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Button component={Link} to={`/groove?${params}`} size="small" sx={{ ml: -0.75 }}>{t`‹ Groove`}</Button>
      <Typography variant="h1">{t`Joints`}</Typography>
      <ToggleButtonGroup
        exclusive
        value={kind}
        aria-label={t`Joint`}
        onChange={(_, v: JointKind | null) => {
          if (!v) return;
          setChosen(undefined);
          change((now) => now.set('joint', v));
        }}
        sx={{ my: 1 }}
      >
        {(Object.keys(kindWords) as JointKind[]).map((k) => (
          <ToggleButton key={k} value={k} sx={{ px: { xs: 1.25, sm: 2 } }}>
            {kindWords[k]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {!ready && <Coming of={[saws, rack]} drawing />}
      {saws.data?.length === 0 && <FirstThings missing="saw" />}
      <Box
        sx={{
          display: ready && tables.length > 0 ? 'grid' : 'none',
          gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0, 4fr) minmax(0, 8fr)' },
          columnGap: 4,
          rowGap: 2,
          borderTop: '2px solid',
          borderColor: 'text.primary',
          pt: 1.5,
        }}
      >
        <Box sx={{ display: 'grid', gap: 1.75, alignContent: 'start' }}>
          {saw && (
            <SelectField
              label={t`Saw`}
              value={saw.id}
              choices={tables.map((s) => [s.id, s.name] as const)}
              onChoose={(id) => change((now) => now.set('saw', id))}
              problem={problem('saw_id')}
            />
          )}
          {blade && rack.data && (
            <SelectField
              label={t`Blade`}
              value={blade.id}
              choices={rack.data
                .filter((b) => b.teeth > 0)
                .map((b) => [b.id, `${b.name}: ${specOf(b, units)}`] as const)}
              onChoose={setChosen}
              problem={problem('blade_id')}
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
              onClear={optional.has(key) ? () => put({ [key]: undefined }) : undefined}
              problem={problem(key)}
              hint={hint}
            />
          ))}
          {kind === 'box' && mine.gap_mm !== undefined && (
            <NumberField
              label={t`Measured over this many fingers`}
              value={mine.fingers ?? 1}
              onNumber={(v) => put({ fingers: v === undefined ? undefined : Math.max(1, Math.round(v)) })}
            />
          )}
          {kind === 'slope' && (
            <NumberField
              label={t`The bottom slopes by`}
              unit={t`degrees`}
              value={mine.slope_deg}
              onNumber={(slope_deg) => put({ slope_deg })}
              problem={problem('slope_deg')}
            />
          )}
          {kind === 'fold' && (
            <NumberField
              label={t`The bend`}
              unit={t`degrees`}
              value={mine.bend_deg}
              onNumber={(bend_deg) => put({ bend_deg })}
              problem={problem('bend_deg')}
            />
          )}
        </Box>
        <Box sx={{ minWidth: 0 }}>
          {tables.length > 0 && !saw && (
            <Box sx={{ fontSize: 17 }}>{t`Joints are cut on a table saw. You have none yet.`}</Box>
          )}
          {plan.error && <Trouble>{plan.error.message}</Trouble>}
          {ask && plan.data && !plan.error && plan.data.kind === kind && (
            <Answer ask={ask} plan={plan.data} units={units} settled={!plan.isPlaceholderData} />
          )}
        </Box>
      </Box>
    </Box>
  );
}

interface AnswerProps {
  ask: JointAsk;
  plan: JointPlan;
  units: Units;
  settled: boolean; // the plan is of this very ask
}

function Answer({ ask, plan, units, settled }: AnswerProps) {
  return (
    <Box component="section" aria-label={t`Settings`}>
      <JointDrawing ask={ask} plan={plan} units={units} />
      <Box component="ol" sx={{ m: 0, mt: 1, pl: 3 }}>
        {plan.do.map((d) => (
          <Box component="li" key={d} sx={{ fontSize: 18, lineHeight: 1.4, mb: 0.5 }}>
            {d}
          </Box>
        ))}
      </Box>
      {(plan.stops_mm ?? plan.passes) && <Places plan={plan} units={units} />}
      {plan.mind.map((m) => (
        <Box key={m} sx={{ display: 'flex', gap: 1, alignItems: 'baseline', mt: 0.75 }}>
          <Verdict verdict="caution" size={13} />
          <span>{m}</span>
        </Box>
      ))}
      <Box component="ul" sx={{ mt: 1.5, mb: 0, pl: 2.5, fontSize: 15 }} aria-label={t`Cautions`}>
        {plan.cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </Box>
      {settled && <Keep key={JSON.stringify(ask)} plan={plan} />}
    </Box>
  );
}

/** The settings of a joint in the log of its blade, to be looked up for the next one. */
function Keep({ plan }: { plan: JointPlan }) {
  const note = useNote();
  const key = useRef(crypto.randomUUID());
  return (
    <Box sx={{ mt: 1.5, display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
      <Button
        variant="outlined"
        disabled={note.isPending || note.isSuccess}
        onClick={() =>
          note.mutate({
            id: plan.blade_id,
            key: key.current,
            note: `${kindWords[plan.kind]}. ${plan.do.join(' ')}`,
          })
        }
      >
        {t`Save to log`}
      </Button>
      {note.isSuccess && <span role="status">{t`Saved with the blade.`}</span>}
      {note.error && <Trouble>{note.error.message}</Trouble>}
    </Box>
  );
}

/** Where stop or fence stand, pass by pass. */
function Places({ plan, units }: { plan: JointPlan; units: Units }) {
  const places = plan.stops_mm
    ? plan.stops_mm.map((s) => formatSetting(s, units))
    : (plan.passes ?? []).map(
        (p) => t`${formatSetting(p.fence_mm, units)}, ${formatSetting(p.height_mm, units)} high`,
      );
  return (
    <Box
      component="ol"
      aria-label={t`Passes`}
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, listStyle: 'none', m: 0, p: 0, mt: 1 }}
    >
      {places.map((p, i) => (
        <Box component="li" key={i} sx={{ border: '1.5px solid', borderColor: 'divider', px: 1, py: 0.5 }}>
          <Box sx={{ fontSize: 13, color: 'text.secondary', lineHeight: 1.1 }}>{i + 1}</Box>
          <b>{p}</b>
        </Box>
      ))}
    </Box>
  );
}
