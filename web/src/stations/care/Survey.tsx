/** Looking a blade over after a lost tip or a hit, one place at a time: clean first, then tips, seats, braze, plate. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRef, useState, type ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useInspect } from '../../api/care';
import { useBlade } from '../../api/rack';
import type { Survey } from '../../api/types';
import { useBy } from '../../api/session';
import { SurveyView, type Look } from '../../drawings/SurveyView';
import { LineField, NumberField } from '../../ui/Fields';
import { Pick } from '../../ui/Pick';
import { Trouble } from '../../ui/Notice';
import { Worded } from '../../ui/Worded';

type Part = Partial<Survey>;
interface StepProps {
  s: Survey;
  set: (p: Part) => void;
}
interface Step {
  look: Look;
  title: string;
  says: string;
  ask: (p: StepProps) => ReactNode;
  wanted?: (s: Survey) => boolean; // left out where it has nothing to ask
}

const yesNo = [
  ['yes', t`Yes`],
  ['no', t`No`],
] as const;
const said = (v: boolean | undefined) => (v === undefined ? undefined : v ? 'yes' : 'no');

const steps: Step[] = [
  {
    look: 'clean',
    title: t`Clean it first`,
    says: t`Disconnect the power, wear gloves and take the blade off. Resin hides cracks and braze, so clean and dry the teeth and plate. Lay the blade on wood.`,
    ask: ({ s, set }) => (
      <>
        <Pick
          label={t`What happened`}
          value={s.after}
          choices={[
            ['lost-tip', t`A tip is missing`],
            ['hit', t`It hit something`],
            ['doubt', t`Not sure`],
          ]}
          onPick={(after) => set({ after })}
        />
        <Pick
          label={t`How much resin was on it`}
          value={s.pitch}
          choices={[
            ['none', t`None`],
            ['light', t`A little`],
            ['caked', t`A thick coat`],
          ]}
          onPick={(pitch) => set({ pitch })}
        />
        <Pick
          label={t`Is it clean now?`}
          value={said(s.cleaned)}
          choices={yesNo}
          onPick={(v) => set({ cleaned: v === 'yes' })}
        />
      </>
    ),
  },
  {
    look: 'tips',
    title: t`Every tip`,
    says: t`Go around once in good light from a chalk mark. Push each tip sideways with a thumbnail. If it moves, it's loose.`,
    ask: ({ s, set }) => (
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, minmax(0, 1fr))', gap: 1.5 }}>
        <NumberField label={t`Missing`} value={s.missing} onNumber={(v) => set({ missing: count(v) })} />
        <NumberField label={t`Loose`} value={s.loose} onNumber={(v) => set({ loose: count(v) })} />
        <NumberField label={t`Chipped`} value={s.chipped} onNumber={(v) => set({ chipped: count(v) })} />
      </Box>
    ),
  },
  {
    look: 'seat',
    title: t`The empty seat`,
    says: t`Look where the tip was. A seat is ground back by 0.13 to 0.18 mm before a tip is brazed on. Saw marks across it mean it wasn't.`,
    wanted: (s) => (s.missing ?? 0) > 0,
    ask: ({ s, set }) => (
      <Pick
        label={t`The seat`}
        value={s.seat}
        choices={[
          ['ground', t`Ground clean`],
          ['saw-marks', t`Saw marks across it`],
        ]}
        onPick={(seat) => set({ seat })}
      />
    ),
  },
  {
    look: 'braze',
    title: t`Braze at the sides`,
    says: t`Look at the tips beside it from the front. The braze should be an even line. Squeezed-out braze means the tip was pushed in too far.`,
    ask: ({ s, set }) => (
      <Pick
        label={t`Braze`}
        value={s.braze}
        choices={[
          ['even', t`An even line`],
          ['squeezed', t`Squeezed out`],
        ]}
        onPick={(braze) => set({ braze })}
      />
    ),
  },
  {
    look: 'rest',
    title: t`The rest of the teeth`,
    says: t`Even wear with a missing tip means it ran on for a good while.`,
    ask: ({ s, set }) => (
      <Pick
        label={t`The other teeth`}
        value={s.rest}
        choices={[
          ['sharp', t`Sharp`],
          ['worn', t`Evenly worn`],
        ]}
        onPick={(rest) => set({ rest })}
      />
    ),
  },
  {
    look: 'crack',
    title: t`Cracks`,
    says: t`Look at the bottom of every gullet and the end of every slot, both faces, with light from the side. Never use a cracked plate.`,
    ask: ({ s, set }) => (
      <Pick
        label={t`A crack`}
        value={s.crack}
        choices={[
          ['none', t`None`],
          ['gullet', t`At a gullet`],
          ['slot', t`At a slot`],
        ]}
        onPick={(crack) => set({ crack })}
      />
    ),
  },
  {
    look: 'plate',
    title: t`The plate`,
    says: t`Blue means it got too hot. Lay a straightedge across it in several places. Light under it means it's bent.`,
    ask: ({ s, set }) => (
      <>
        <Pick
          label={t`Any blue spots?`}
          value={said(s.blue)}
          choices={yesNo}
          onPick={(v) => set({ blue: v === 'yes' })}
        />
        <Pick
          label={t`Bent?`}
          value={said(s.bent)}
          choices={yesNo}
          onPick={(v) => set({ bent: v === 'yes' })}
        />
      </>
    ),
  },
  {
    look: 'beside',
    title: t`Teeth next to the spot`,
    says: t`Check the tooth spacing with dividers. A hit bends the shoulders and moves the teeth beside it.`,
    ask: ({ s, set }) => (
      <Pick
        label={t`Spacing`}
        value={s.beside}
        choices={[
          ['even', t`Like the others`],
          ['shifted', t`Unlike the others`],
        ]}
        onPick={(beside) => set({ beside })}
      />
    ),
  },
];

const count = (v: number | undefined) =>
  v === undefined ? undefined : Math.max(0, Math.min(200, Math.round(v)));

export function SurveyPage() {
  const { id = '' } = useParams();
  const blade = useBlade(id);
  const go = useNavigate();
  const inspect = useInspect();
  const key = useRef(crypto.randomUUID());
  const [survey, setSurvey] = useState<Survey>({ after: 'doubt' });
  const [by, setBy] = useBy();
  const [note, setNote] = useState('');
  const [at, setAt] = useState(0);
  const shown = steps.filter((s) => s.wanted?.(survey) ?? true);
  const step = shown[at];
  const set = (p: Part) => setSurvey((now) => ({ ...now, ...p }));
  const save = () =>
    inspect.mutate(
      { id, key: key.current, body: { survey, by: by || undefined, note: note || undefined } },
      { onSuccess: () => void go(`/blades/${id}/survey/report`) },
    );
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Button component={Link} to={`/blades/${id}`} size="small" sx={{ ml: -0.75 }}>
        ‹ {blade.data?.name ?? t`The blade`}
      </Button>
      <Typography variant="h1">{t`Inspect ${blade.data?.name ?? t`this blade`} step by step`}</Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0,6fr) minmax(340px,5fr)' },
          columnGap: 4,
          rowGap: 2,
          mt: 1.5,
        }}
      >
        <Box
          sx={{
            height: { xs: 220, sm: 340, md: 470 },
            borderTop: '2px solid',
            borderBottom: '1px solid',
            borderColor: 'text.primary',
            py: 1,
          }}
        >
          <SurveyView look={step?.look ?? 'tips'} survey={survey} />
        </Box>
        <Box sx={{ minWidth: 0, display: 'flex', flexDirection: 'column', gap: 1.5 }}>
          <Box sx={{ color: 'text.secondary', fontSize: 15 }} role="status">
            {step ? t`Step ${at + 1} of ${shown.length}` : t`What you found`}
          </Box>
          <Typography variant="h2">{step?.title ?? t`Save`}</Typography>
          {step ? (
            <>
              <Typography>
                <Worded>{step.says}</Worded>
              </Typography>
              {step.ask({ s: survey, set })}
            </>
          ) : (
            <>
              <Typography>
                {t`Next you see what it means and what to tell the sharpening service. An unsafe blade isn't offered until it has been repaired and inspected.`}
              </Typography>
              <LineField label={t`Inspected by`} value={by} most={60} onText={setBy} />
              <LineField label={t`Note`} value={note} most={500} rows={2} onText={setNote} />
            </>
          )}
          {inspect.error && <Trouble>{inspect.error.message}</Trouble>}
          <Box sx={{ display: 'flex', gap: 1, mt: 'auto' }}>
            <Button variant="outlined" sx={wide} disabled={at === 0} onClick={() => setAt(at - 1)}>
              {t`Back`}
            </Button>
            {step ? (
              <Button variant="contained" sx={{ ...wide, flex: 1 }} onClick={() => setAt(at + 1)}>
                {t`Next`}
              </Button>
            ) : (
              <Button
                variant="contained"
                sx={{ ...wide, flex: 1 }}
                disabled={inspect.isPending}
                onClick={save}
              >
                {t`Save inspection`}
              </Button>
            )}
          </Box>
        </Box>
      </Box>
    </Box>
  );
}

const wide = { minHeight: 52, px: 2.5, fontSize: 17 };
