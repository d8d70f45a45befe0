/**
 * Choose: say a cut, see which of the shop's blades makes it and why, set the
 * height on a drawing at true scale, and log that it was made.
 */
import { wordOf } from '../../drawings/codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { lazy, Suspense, useMemo, useState, type ComponentType } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { ProblemError } from '../../api/client';
import { usePlan, useSweep } from '../../api/choose';
import { useStartMounting } from '../../api/mount';
import { useBlades, useSaws } from '../../api/rack';
import { useMaterials } from '../../api/shop';
import type { Cut, Pin, Plan, Setting, Sweep } from '../../api/types';
import { PHONE, usePhone } from '../../ui/phone';
import { usePreferences } from '../../ui/preferences';
import { cutBrief } from '../../drawings/words';
import { formatSetting, heightStep } from '../../measure/format';
import { saidSeconds } from '../../ui/feed';
import { Candidates } from './Candidates';
import { useCut, usePins, type Answers } from '../../cut/cut';
import { Findings } from '../../cut/Findings';
import { Sentence } from './Sentence';
import type { SettingPanelProps } from './setting';
import { Trouble } from '../../ui/Notice';
import { Outline } from '../../ui/Outline';
import { soon } from '../../ui/soon';

// One of the two is needed, and is fetched beside the data that it shows.
const narrow = soon(() => import('./Phone'));
const wide = soon(() => import('./SettingPanel'));
(matchMedia(PHONE).matches ? narrow : wide).fetch().catch(() => undefined); // asked again when it is wanted

const FirstThings = lazy(() => import('../../ui/FirstThings').then((m) => ({ default: m.FirstThings })));
const ByRule = lazy(() => import('./ByRule').then((m) => ({ default: m.ByRule })));

const FEW = 60; // options at first; more than anyone reads

export function Choose() {
  const { units } = usePreferences();
  const phone = usePhone();
  const saws = useSaws();
  const materials = useMaterials();
  const rack = useBlades();
  const [cut, change, answer] = useCut(saws.data, materials.data);
  const [limit, setLimit] = useState(FEW);
  const plan = usePlan(cut, units, limit);
  const { pins, add, drop } = usePins();
  const onPhone = narrow.use(phone);
  const onDesk = wide.use(!phone);
  const { search } = useLocation();
  const blades = useMemo(() => new Map((rack.data ?? []).map((b) => [b.id, b])), [rack.data]);
  const [wanted, setWanted] = useState<string>();
  const [asked, setAsked] = useState<{ of: string; mm: number }>();

  const failed = saws.error ?? materials.error ?? rack.error;
  if (failed)
    return (
      <Failed
        message={failed.message}
        onAgain={() => void Promise.all([saws.refetch(), materials.refetch(), rack.refetch()])}
      />
    );
  if (!cut || !saws.data || !materials.data) return <Waiting ready={saws.data?.length === 0} />;
  const Panel = phone ? onPhone?.PhonePanel : onDesk?.SettingPanel;
  if (!Panel) return <Waiting ready={false} />;

  const saw = saws.data.find((s) => s.id === cut.saw_id)!;
  const problem =
    plan.error instanceof ProblemError ? { field: plan.error.field, message: plan.error.message } : undefined;
  // A refused cut leaves no plan to show; while a new one is on its way the last stands.
  const shown = plan.error ? undefined : plan.data;
  const option = shown?.options.find((o) => o.blade_id === wanted) ?? shown?.options[0];
  const blade = option && blades.get(option.blade_id);
  const cutKey = JSON.stringify(cut); // a height belongs to one cut
  const first = shown?.options[0]?.setting;
  const faces = first && {
    exit: first.exit.name,
    // the end of a rip never counts, so there is nothing to choose there
    other: first.other.matters || shown.cut.other_support === 'spare' ? first.other.name : undefined,
  };

  const material = materials.data.find((m) => m.id === cut.material);
  const candidates = shown && (
    <Candidates
      plan={shown}
      blades={blades}
      chosen={option?.blade_id}
      units={units}
      onChoose={setWanted}
      onMore={() => setLimit(500)}
    />
  );
  const sentence = (
    <Sentence
      cut={cut}
      settled={shown?.cut}
      faces={faces}
      showFace={shown?.show_face}
      supports={shown && { exit: shown.exit_supports, other: shown.other_supports }}
      fence={shown?.fence_side}
      saws={saws.data}
      materials={materials.data}
      units={units}
      problem={problem}
      onChange={change}
    />
  );

  return (
    <Box
      component="main"
      sx={{
        height: { md: '100%' },
        display: 'flex',
        flexDirection: 'column',
        px: { xs: 2, md: 3 },
        pt: { xs: 0, sm: 1.5 },
        pb: { xs: 0, sm: 2, md: 1 },
        gap: 1.25,
      }}
    >
      {phone && onPhone ? (
        <onPhone.BriefSentence said={cutBrief(shown?.cut ?? cut, saw, material, units)}>
          {sentence}
          {option?.setting && blade && (
            <Box
              role="status"
              sx={{ mt: 2, pt: 1.5, borderTop: '1px solid', borderColor: 'divider', fontSize: 18 }}
            >
              {blade.name}
              {option.setting.height_mm > 0 && `, ${formatSetting(option.setting.height_mm, units)}`},{' '}
              {saidSeconds(option.setting, units)}, {wordOf(option.verdict)}
            </Box>
          )}
        </onPhone.BriefSentence>
      ) : (
        sentence
      )}
      {phone && problem && (
        <Typography role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
          {problem.message}
        </Typography>
      )}
      {plan.error && !problem && <Trouble onAgain={() => void plan.refetch()}>{plan.error.message}</Trouble>}
      {!shown && !plan.error && <Outline rows={6} height={100} drawing />}
      {shown && (
        <Box
          sx={{
            flex: 1,
            minHeight: 0,
            display: 'grid',
            gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(400px, 5fr) minmax(0, 7fr)' },
            gap: { xs: 3, md: 3 },
            borderTop: { sm: '2px solid' },
            borderColor: { sm: 'text.primary' },
            pt: { sm: 1 },
          }}
        >
          {!(phone && option?.setting) && (
            <Box sx={{ order: { xs: 2, md: 1 }, minHeight: 0, overflow: { md: 'auto' } }} tabIndex={-1}>
              {candidates}
            </Box>
          )}
          <Box
            sx={{
              order: { xs: 1, md: 2 },
              minHeight: 0,
              minWidth: 0,
              overflow: { md: shown.modelled ? 'hidden' : 'auto' },
            }}
          >
            {option && blade && option.setting && (
              <AtHeight
                key={blade.id}
                {...{ option, blade, saw, units, phone, Panel }}
                list={candidates}
                suggested={option.setting}
                plan={shown}
                cut={shown.cut}
                material={material}
                asked={asked?.of === blade.id + cutKey ? asked.mm : undefined}
                onHeight={(mm) => setAsked({ of: blade.id + cutKey, mm })}
                {...{ blades, pins, search }}
                onPin={add}
                onUnpin={drop}
                onBlade={setWanted}
                onYes={answer}
              />
            )}
            {shown.by_rule && (
              <Suspense fallback={null}>
                <ByRule plan={shown} material={material} blade={blade} units={units} />
                {option && blade && (
                  <RunIt to={`/run?${withBlade(search, blade.id)}`} plan={shown} onYes={answer} />
                )}
              </Suspense>
            )}
          </Box>
        </Box>
      )}
    </Box>
  );
}

type AtHeightProps = Omit<
  SettingPanelProps,
  'setting' | 'schools' | 'passes' | 'sweep' | 'children' | 'problem' | 'card' | 'onPin' | 'onMount'
> & {
  phone: boolean;
  Panel: ComponentType<SettingPanelProps>;
  suggested: Setting;
  asked: number | undefined;
  search: string;
  onPin: (p: Pin) => void;
};

/** Holds the sweep of heights, so that a dragging hand is answered without asking again. */
function AtHeight({ phone, Panel, suggested, asked, search, onPin, ...p }: AtHeightProps) {
  const step = heightStep[p.units];
  // A height off the steps, or out of reach, is for the server to answer.
  const full = p.option.heights?.full_mm ?? 0;
  const typed = asked !== undefined && (offStep(asked, step) || asked > full) ? asked : undefined;
  const sweep = useSweep(p.cut, p.blade.id, step, typed, p.units);
  const setting =
    asked === undefined ? suggested : (settingAt(sweep.data, asked, step, suggested) ?? suggested);
  const mount = useStartMounting();
  const go = useNavigate();
  const card = withBlade(search, p.blade.id);
  if (setting.height_mm > 0) card.set('h', String(Number(setting.height_mm.toFixed(4))));
  return (
    <Panel
      {...p}
      setting={setting}
      schools={sweep.data?.schools ?? []}
      passes={sweep.data?.passes ?? []}
      sweep={sweep.data?.settings ?? []}
      card={`/card?${card}`}
      onPin={() =>
        onPin({
          blade_id: p.blade.id,
          height_mm: setting.height_mm || undefined,
          exit_support: p.cut.exit_support,
          other_support: p.cut.other_support,
        })
      }
      onMount={() =>
        mount.mutate(
          { saw_id: p.saw.id, blade_id: p.blade.id, units: p.units },
          { onSuccess: (m) => void go(`/mount/${m.id}${search}`) },
        )
      }
      problem={sweep.error?.message ?? mount.error?.message}
    >
      <RunIt to={`/run?${card}`} fit={fitted(p.cut, search)} plan={p.plan} onYes={p.onYes} bare={phone} />
    </Panel>
  );
}

/** The cut's address, taken on with one blade. */
function withBlade(search: string, blade: string) {
  const to = new URLSearchParams(search);
  to.set('blade', blade);
  return to;
}

/** Where a cut that does not go through is worked out to fit: its address and its name. */
function fitted(cut: Cut, search: string): [string, string] | undefined {
  const joint = (kind: string) => {
    const to = new URLSearchParams(search);
    to.set('joint', kind);
    return `/groove/joints?${to}`;
  };
  switch (cut.form) {
    case 'groove':
    case 'rabbet':
      return [`/groove${search}`, t`Fit it to a piece`];
    case 'cheek':
      return [joint('tenon'), t`Plan the tenon`];
    case 'fold':
      return [joint('fold'), t`Plan the bend`];
    default:
      return undefined;
  }
}

/** On to the saw, with the cut, the blade and the height; not past a stop. */
function RunIt({
  to,
  fit,
  plan,
  bare = false,
  onYes,
}: {
  to: string;
  fit?: [string, string];
  plan: Plan;
  bare?: boolean; // the buttons alone: what stands against the cut is said elsewhere
  onYes: (answers: Answers) => void;
}) {
  const actions = (
    <>
      {fit && (
        <Button component={Link} to={fit[0]}>
          {fit[1]}
        </Button>
      )}
      {plan.verdict === 'stop' ? (
        <Button variant="contained" disabled sx={{ px: { xs: 2.5, sm: 4 }, fontSize: 17 }}>
          {t`Not like this`}
        </Button>
      ) : (
        <Button component={Link} to={to} variant="contained" sx={{ px: { xs: 2.5, sm: 4 }, fontSize: 17 }}>
          {t`Run this cut`}
        </Button>
      )}
    </>
  );
  if (bare) return actions;
  return (
    <Box
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 2,
        flexWrap: 'wrap',
        pt: 1,
        borderTop: '1px solid',
        borderColor: 'divider',
      }}
    >
      <Box sx={{ flex: 1, minWidth: { xs: '100%', sm: 220 } }}>
        <Findings findings={plan.findings} onYes={onYes} />
      </Box>
      {actions}
    </Box>
  );
}

const offStep = (mm: number, step: number) => Math.abs(mm / step - Math.round(mm / step)) > 1e-6;

function settingAt(
  sweep: Sweep | undefined,
  mm: number,
  step: number,
  suggested: Setting,
): Setting | undefined {
  if (Math.abs(mm - suggested.height_mm) < 1e-9) return suggested;
  if (!sweep) return undefined;
  if (offStep(mm, step)) return sweep.also?.height_mm === mm ? sweep.also : undefined;
  return sweep.settings[Math.round(mm / step) - 1];
}

function Failed({ message, onAgain }: { message: string; onAgain: () => void }) {
  return (
    <Box component="main" sx={{ p: 2 }}>
      <Typography variant="h1" gutterBottom>{t`Cut`}</Typography>
      <Trouble onAgain={onAgain}>{message}</Trouble>
    </Box>
  );
}

function Waiting({ ready }: { ready: boolean }) {
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      {ready ? (
        <>
          <Typography variant="h1">{t`Cut`}</Typography>
          <Suspense fallback={null}>
            <FirstThings missing="saw" />
          </Suspense>
        </>
      ) : (
        <Outline rows={6} height={100} drawing />
      )}
    </Box>
  );
}
