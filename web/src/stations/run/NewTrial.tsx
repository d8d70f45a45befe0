/** A comparison laid out: the settings that were pinned, how often each is cut, and whether it is graded blind. */
import { wordOf } from '../../drawings/codeWords';
import { t } from '@lingui/core/macro';
import { listOf } from '../../measure/format';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { useComparison, usePlan } from '../../api/choose';
import { useBlades, useSaws } from '../../api/rack';
import { useStartTrial, useTrials } from '../../api/run';
import { useMaterials } from '../../api/shop';
import type { Cut, Support, TrialAsk } from '../../api/types';
import { useBy } from '../../api/session';
import { usePreferences } from '../../ui/preferences';
import { cutFace } from '../../drawings/theme';
import { cutSaid, supportWords } from '../../drawings/words';
import { Outline } from '../../ui/Outline';
import { CheckField, LineField, NumberField, SelectField } from '../../ui/Fields';
import { LengthField } from '../../ui/LengthField';
import { useCut, usePins } from '../../cut/cut';
import { Findings } from '../../cut/Findings';
import { useAfterReading } from '../../ui/useAfterReading';
import { useDates } from '../../ui/useDates';
import { Trouble } from '../../ui/Notice';

type Way = TrialAsk['settings'][number];

const supports = (['open', 'tape', 'zero-clearance', 'backer', 'scored'] as const).map(
  (s) => [s, supportWords[s]] as const,
);
const letter = (i: number) => String.fromCharCode(65 + i);
const MOST = 4;

export function NewTrial() {
  const { units } = usePreferences();
  const [params] = useSearchParams();
  const saws = useSaws();
  const materials = useMaterials();
  const rack = useBlades();
  const [cut, , answer] = useCut(saws.data, materials.data);
  const plan = usePlan(cut, units, 60);
  const { pins } = usePins();
  const blade = params.get('blade') ?? plan.data?.options[0]?.blade_id;
  const height = Number(params.get('h')) || undefined;
  const [mine, setMine] = useState<Way[]>();
  const begin: Way[] =
    pins.length > 1
      ? pins.map((p) => ({ blade_id: p.blade_id, height_mm: p.height_mm, exit_support: p.exit_support }))
      : blade
        ? [
            { blade_id: blade, height_mm: height },
            { blade_id: blade, height_mm: height },
          ]
        : [];
  const ways = mine ?? begin;
  const shown = useComparison(
    plan.data?.cut ?? (cut as Cut),
    plan.data
      ? ways.map((w) => ({ blade_id: w.blade_id, height_mm: w.height_mm, exit_support: w.exit_support }))
      : [],
    units,
  );
  const [repeats, setRepeats] = useState(4);
  const [blind, setBlind] = useState(true);
  const [by, setBy] = useBy();
  const start = useStartTrial();
  const key = useRef(crypto.randomUUID());
  const go = useNavigate();
  const set = (i: number, part: Partial<Way>) =>
    setMine(ways.map((w, k) => (k === i ? { ...w, ...part } : w)));
  const saw = saws.data?.find((s) => s.id === cut?.saw_id);
  const chop = plan.data?.cut.motion === 'chop';
  const offered = (plan.data?.options ?? [])
    .map((o) => rack.data?.find((b) => b.id === o.blade_id))
    .filter((b) => b !== undefined)
    .map((b) => [b.id, b.name] as const);
  const compare = useAfterReading(() => {
    if (!cut) return;
    start.mutate(
      {
        key: key.current,
        body: {
          cut: plan.data?.cut ?? cut,
          settings: ways.map((w, i) => ({
            ...w,
            exit_support: w.exit_support ?? shown.data?.[i]?.cut.exit_support,
            height_mm: chop ? undefined : (w.height_mm ?? shown.data?.[i]?.setting?.height_mm),
          })),
          repeats,
          blind,
          by: by || undefined,
          units,
        },
      },
      {
        onSuccess: (past) => void go(`/trial/${past.id}?${params}`),
        onError: () => (key.current = crypto.randomUUID()),
      },
    );
  });
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2, maxWidth: 1100 }}>
      <Button component={Link} to={`/run?${params}`} size="small" sx={{ ml: -0.75 }}>{t`‹ Run`}</Button>
      <Typography variant="h1">{t`Compare settings on one board`}</Typography>
      {plan.data && saw && (
        <Box sx={{ fontFamily: cutFace, fontSize: 19, my: 0.5 }}>
          {cutSaid(
            plan.data.cut,
            saw,
            materials.data?.find((m) => m.id === cut?.material),
            units,
          )}
        </Box>
      )}
      {plan.data && <Findings findings={plan.data.findings} onYes={answer} />}
      <Box sx={{ color: 'text.secondary', mt: 1, mb: 1.5 }}>
        {t`Change only one thing. Cut the pieces in shuffled order and number each one, so that neither the board nor your hand favors a setting.`}
      </Box>
      {!plan.data && !plan.error && <Outline rows={2} height={140} />}
      {(plan.error ?? shown.error) && (
        <Trouble sx={{ mb: 1 }}>{(plan.error ?? shown.error)?.message}</Trouble>
      )}
      <Box
        sx={{
          display: 'grid',
          gap: 2,
          gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 240px), 1fr))',
        }}
      >
        {ways.map((w, i) => {
          const c = shown.data?.[i];
          return (
            <Box
              key={i}
              component="section"
              aria-label={t`Setting ${letter(i)}`}
              sx={{
                borderTop: '2px solid',
                borderColor: 'text.primary',
                pt: 1,
                display: 'grid',
                gap: 1.5,
                alignContent: 'start',
              }}
            >
              <Box sx={{ display: 'flex', alignItems: 'center' }}>
                <Box sx={{ fontFamily: cutFace, fontSize: 30, fontWeight: 700, flex: 1 }}>{letter(i)}</Box>
                {ways.length > 2 && (
                  <IconButton
                    aria-label={t`Leave out setting ${letter(i)}`}
                    sx={{ minWidth: 44, minHeight: 44 }}
                    onClick={() => setMine(ways.filter((_, k) => k !== i))}
                  >
                    ×
                  </IconButton>
                )}
              </Box>
              <SelectField
                label={t`Blade`}
                value={w.blade_id}
                choices={offered}
                onChoose={(blade_id) => set(i, { blade_id })}
              />
              {!chop && (
                <LengthField
                  key={w.blade_id} // what is typed stands, also while the suggestion comes
                  label={saw?.kind === 'table' ? t`Height` : t`Depth`}
                  mm={w.height_mm ?? c?.setting?.height_mm ?? 0}
                  units={units}
                  onLength={(height_mm) => set(i, { height_mm })}
                  problem={c?.refused}
                />
              )}
              <SelectField<Support>
                label={c?.setting ? wordOf(c.setting.exit.name) : t`Exit side`}
                value={w.exit_support ?? c?.cut.exit_support ?? 'open'}
                choices={supports}
                onChoose={(exit_support) => set(i, { exit_support })}
              />
              <NumberField
                label={t`Seconds for ${units === 'mm' ? t`300 mm` : t`a foot`}`}
                value={
                  w.feed_m_min && Math.round(((units === 'mm' ? 0.3 : 0.3048) * 600) / w.feed_m_min) / 10
                }
                hint={t`Leave empty for the suggested value`}
                onNumber={(s) =>
                  set(i, { feed_m_min: s && s > 0 ? ((units === 'mm' ? 0.3 : 0.3048) * 60) / s : undefined })
                }
              />
            </Box>
          );
        })}
      </Box>
      {ways.length < MOST && ways.length > 0 && (
        <Button sx={{ mt: 1 }} onClick={() => setMine([...ways, { ...ways[ways.length - 1]! }])}>
          {t`Add a setting`}
        </Button>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, mt: 2, alignItems: 'center' }}>
        <Box sx={{ width: 170 }}>
          <SelectField
            label={t`Pieces of each`}
            value={String(repeats)}
            choices={[1, 2, 3, 4, 5, 6, 8, 10].map((n) => [String(n), String(n)] as const)}
            onChoose={(v) => setRepeats(Number(v))}
          />
        </Box>
        <Box sx={{ width: 180 }}>
          <LineField label={t`Cut by`} value={by} most={60} onText={setBy} />
        </Box>
        <CheckField
          label={t`Grade without knowing which setting made each piece`}
          value={blind}
          onCheck={setBlind}
        />
      </Box>
      <Box sx={{ color: 'text.secondary', fontSize: 14.5 }}>
        {t`${repeats * ways.length} pieces. Four of each can prove a difference. Two can't.`}
      </Box>
      {start.error && <Trouble sx={{ mt: 1 }}>{start.error.message}</Trouble>}
      <Button
        variant="contained"
        sx={{ mt: 2, px: 4, fontSize: 17 }}
        disabled={!cut || plan.data?.verdict === 'stop' || ways.length < 2 || start.isPending}
        onClick={compare}
      >
        {t`Start`}
      </Button>
      <Before />
    </Box>
  );
}

/** What was compared before, so that nobody does it twice. */
function Before() {
  const materials = useMaterials().data;
  const { day } = useDates();
  const trials = useTrials();
  if (!trials.data?.length) return null;
  return (
    <Box component="section" aria-labelledby="before" sx={{ mt: 4 }}>
      <Typography id="before" variant="h2">{t`Compared before`}</Typography>
      {trials.data.map((past) => (
        <Box key={past.id} sx={{ borderTop: '1px solid', borderColor: 'divider', py: 0.75 }}>
          <Link to={`/trial/${past.id}`}>
            {listOf([...new Set(past.settings.map((s) => s.blade_name))])}, {listOf(past.differ)}
          </Link>
          <Box sx={{ color: 'text.secondary', fontSize: 15 }}>
            {day(past.started_at)},{' '}
            {materials?.find((m) => m.id === past.cut.material)?.name ?? past.cut.material}.{' '}
            {past.ended_at ? `${past.says[0] ?? ''}.` : t`In progress.`}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
