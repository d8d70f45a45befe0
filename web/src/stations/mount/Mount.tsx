/** Mount: one large card at a time, for one thumb; it comes back where it was, on any device. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useLocation, useNavigate, useParams } from 'react-router';
import { ProblemError } from '../../api/client';
import { useDropMounting, useEndMounting, useMounting, useStepMounting } from '../../api/mounting';
import type { Mounting, MountStep, Units } from '../../api/types';
import { useChanges } from '../../api/changes';
import { usePreferences } from '../../ui/preferences';
import { ClockView } from '../../drawings/ClockView';
import { InsertView } from '../../drawings/InsertView';
import { MountPicture } from '../../drawings/MountPicture';
import { StackView } from '../../drawings/StackView';
import { Arriving } from '../../ui/Arriving';
import { LineField } from '../../ui/Fields';
import { Verdict } from '../../ui/Verdict';
import { LengthField } from '../../ui/LengthField';
import { useAfterReading } from '../../ui/useAfterReading';
import { Notice, Trouble } from '../../ui/Notice';
import { Sure } from '../../ui/Sure';
import { Worded } from '../../ui/Worded';

export function Mount() {
  const { id = '' } = useParams();
  const { units } = usePreferences();
  const { search } = useLocation();
  useChanges();
  const mounting = useMounting(id, units);
  const ended = mounting.error instanceof ProblemError && mounting.error.status === 404;
  if (mounting.error)
    return (
      <Box component="main" sx={{ p: 3 }}>
        <Typography variant="h1">{t`Mounting`}</Typography>
        <Notice kind={ended ? 'said' : 'trouble'} sx={{ my: 2 }}>
          {ended
            ? t`This mounting was finished or stopped, here or on another device.`
            : mounting.error.message}
        </Notice>
        <Button component={Link} to={`/saws${search}`} variant="outlined">{t`Go to Saws`}</Button>
      </Box>
    );
  if (!mounting.data) return <Arriving title={t`Mounting`} of={[mounting]} rows={1} height={300} drawing />;
  return <Cards key={mounting.data.id} mounting={mounting.data} units={units} />;
}

function Cards({ mounting: m, units }: { mounting: Mounting; units: Units }) {
  const go = useNavigate();
  const { search } = useLocation();
  const move = useStepMounting();
  const end = useEndMounting();
  const drop = useDropMounting();
  const [by, setBy] = useState(m.by);
  const [diameter, setDiameter] = useState<number>();
  const step = m.steps[m.step]!;
  const last = m.step === m.steps.length - 1;
  const bad = step.checks.find((c) => m.answers[c.id] === false);
  const open = step.checks.some((c) => m.answers[c.id] !== true) || (step.numbers && diameter === undefined);
  const to = (at: number) => move.mutate({ id: m.id, units, step: at });
  const toBench = () => void go(`/saws${search}`);
  // Not a callback of the mutation: this page ends with the mounting.
  const isOn = useAfterReading(
    () =>
      void end
        .mutateAsync({ id: m.id, version: m.version, by: by || undefined, diameter_mm: diameter })
        .then(toBench, () => undefined),
  );
  const failed = move.error ?? end.error ?? drop.error;
  return (
    <Box
      component="main"
      sx={{
        maxWidth: 720,
        mx: 'auto',
        p: 2,
        minHeight: '100%',
        display: 'flex',
        flexDirection: 'column',
        gap: 1.5,
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5, flexWrap: 'wrap' }}>
        <Box sx={{ fontSize: 17, color: 'text.secondary', flex: 1, overflowWrap: 'anywhere' }}>
          {t`${m.blade_name} onto ${m.saw_name}`}
        </Box>
        <Box>{t`${m.step + 1} of ${m.steps.length}`}</Box>
      </Box>
      <LinearProgress
        variant="determinate"
        aria-label={t`Mounting progress`}
        value={(100 * (m.step + 1)) / m.steps.length}
        sx={{ bgcolor: 'divider', '& .MuiLinearProgress-bar': { bgcolor: 'text.primary' } }}
      />
      <Box
        component="section"
        aria-label={step.title}
        sx={{
          flex: 1,
          border: '1.5px solid',
          borderColor: 'text.primary',
          borderRadius: 1,
          p: 2,
          bgcolor: 'background.paper',
        }}
      >
        <Typography variant="h1" sx={{ fontSize: { xs: 28, sm: 34 }, overflowWrap: 'anywhere' }}>
          {step.title}
        </Typography>
        <Box sx={{ my: 1.5, display: 'grid', placeItems: 'center' }}>
          <Picture mounting={m} step={step} units={units} />
        </Box>
        {step.text.map((it) => (
          <Typography key={it} sx={{ fontSize: 19, lineHeight: 1.4, mb: 1 }}>
            <Worded>{it}</Worded>
          </Typography>
        ))}
        {step.caution && (
          <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline', fontSize: 17, fontWeight: 650, my: 1 }}>
            <Verdict verdict="caution" size={15} />
            <span>
              <Worded>{step.caution}</Worded>
            </span>
          </Box>
        )}
        {step.numbers && (
          <Box sx={{ maxWidth: 280, my: 1.5 }}>
            <LengthField
              label={t`Measured diameter`}
              mm={diameter}
              units={units}
              onLength={setDiameter}
              large
            />
          </Box>
        )}
        <Checks step={step} mounting={m} onAnswer={(answers) => move.mutate({ id: m.id, units, answers })} />
        {last && (
          <Box sx={{ maxWidth: 280, mt: 2 }}>
            <LineField label={t`Mounted by`} value={by} most={60} onText={setBy} />
          </Box>
        )}
      </Box>
      {failed && <Trouble>{failed.message}</Trouble>}
      <Box sx={{ display: 'flex', gap: 1.5 }}>
        <Button
          variant="outlined"
          sx={{ minHeight: 64, px: 3 }}
          disabled={m.step === 0}
          onClick={() => to(m.step - 1)}
        >
          {t`Back`}
        </Button>
        {last ? (
          <Button
            variant="contained"
            sx={{ flex: 1, minHeight: 64, fontSize: 21 }}
            disabled={open || move.isPending || end.isPending}
            onClick={isOn}
          >
            {t`It's mounted`}
          </Button>
        ) : (
          <Button
            variant="contained"
            sx={{ flex: 1, minHeight: 64, fontSize: 21 }}
            disabled={open || move.isPending}
            onClick={() => to(m.step + 1)}
          >
            {bad ? t`Stopped` : t`Done, next`}
          </Button>
        )}
      </Box>
      <Sure
        size="small"
        sx={{ alignSelf: 'center' }}
        asks={t`Stop mounting?`}
        goes={t`Nothing is logged. Don't leave the saw half done: the next person sees a blade that looks ready.`}
        yes={t`Stop mounting`}
        onYes={() => void drop.mutateAsync(m.id).then(toBench, () => undefined)}
      >
        {t`Stop mounting`}
      </Sure>
    </Box>
  );
}

/** A dado set is drawn as it is put together for its groove; everything else as a step like any other. */
function Picture({ mounting: m, step, units }: { mounting: Mounting; step: MountStep; units: Units }) {
  const way = m.way;
  if (way && way.slots.length > 0 && step.picture === 'stack')
    return (
      <Box sx={{ width: '100%' }}>
        <StackView way={way} units={units} />
      </Box>
    );
  if (way && step.picture === 'clock') return <ClockView way={way} size={260} />;
  if (way?.insert && step.picture === 'insert') return <InsertView insert={way.insert} units={units} />;
  return <MountPicture picture={step.picture} saw={m.saw_kind} thread={m.thread ?? 'unknown'} />;
}

function Checks({
  step,
  mounting: m,
  onAnswer,
}: {
  step: MountStep;
  mounting: Mounting;
  onAnswer: (answers: Record<string, boolean>) => void;
}) {
  return (
    <>
      {step.checks.map((c) => {
        const said = m.answers[c.id];
        return (
          <Box key={c.id} sx={{ borderTop: '1px solid', borderColor: 'divider', py: 1.25 }}>
            <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
              <Box sx={{ flex: 1, minWidth: 200, fontSize: 19, fontWeight: 650 }}>{c.ask}</Box>
              <ToggleButtonGroup
                exclusive
                value={said === undefined ? null : said ? 'yes' : 'no'}
                onChange={(_, v: 'yes' | 'no' | null) => v && onAnswer({ [c.id]: v === 'yes' })}
                aria-label={c.ask}
              >
                <ToggleButton value="yes" sx={{ px: 3, minHeight: 56, fontSize: 18 }}>{t`Yes`}</ToggleButton>
                <ToggleButton value="no" sx={{ px: 3, minHeight: 56, fontSize: 18 }}>{t`No`}</ToggleButton>
              </ToggleButtonGroup>
            </Box>
            {said === false && (
              <Box role="alert" sx={{ display: 'flex', gap: 1, mt: 1, fontSize: 18, fontWeight: 650 }}>
                <Verdict verdict="stop" size={18} />
                <span>
                  <Worded>{c.if_not}</Worded>
                </span>
              </Box>
            )}
          </Box>
        );
      })}
    </>
  );
}
