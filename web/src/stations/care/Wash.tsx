/** A wash under way: one large card a step, with a timer that the server keeps. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, useNavigate, useParams } from 'react-router';
import { useDropWash, useEndWash, useStepWash, useWash } from '../../api/care';
import { cutFace } from '../../app/theme';
import { useChime } from '../../ui/useChime';
import { useNow } from '../../ui/useNow';
import { countdown } from './timer';
import { Trouble } from '../../ui/Notice';

export function Wash() {
  const { id = '' } = useParams();
  const wash = useWash(id);
  const now = useNow(250);
  const step = useStepWash();
  const end = useEndWash();
  const drop = useDropWash();
  const go = useNavigate();
  const w = wash.data;
  const t = w ? countdown(w, now) : undefined;
  useChime(t?.rings ?? false);
  const failed = step.error ?? end.error ?? drop.error;
  const at = w?.steps[w.step];
  const last = w !== undefined && w.step === w.steps.length - 1;
  const busy = step.isPending || end.isPending || drop.isPending;
  const move = (to: number) => w && step.mutate({ id, version: w.version, step: to });
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2, maxWidth: 860 }}>
      <Button component={Link} to="/care" size="small" sx={{ ml: -0.75 }}>
        ‹ Care
      </Button>
      {wash.error && <Trouble>{wash.error.message}</Trouble>}
      {failed && <Trouble sx={{ mb: 1 }}>{failed.message}</Trouble>}
      {w && at && t && (
        <Box component="section" aria-label="Step">
          <Box sx={{ color: 'text.secondary' }}>
            {w.blades.map((b) => b.name).join(', ')} in {w.cleaner.name}, step {w.step + 1} of{' '}
            {w.steps.length}
          </Box>
          <Typography variant="h1" sx={{ fontSize: 44 }}>
            {at.title}
          </Typography>
          <Box
            role="timer"
            aria-label={t.text ? `${t.text} ${t.says}` : t.says}
            sx={{
              fontSize: 96,
              fontWeight: 750,
              lineHeight: 1.05,
              minHeight: 104,
              fontVariantNumeric: 'tabular-nums',
            }}
          >
            {t.text}
          </Box>
          <Box role="status" sx={{ fontSize: 18, fontWeight: 650, minHeight: 28 }}>
            {t.says !== 'to go' && t.says}
          </Box>
          <Box sx={{ fontSize: 20, lineHeight: 1.4, my: 2, maxWidth: 620 }}>{at.text}</Box>
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
            {w.step > 0 && (
              <Button variant="outlined" disabled={busy} onClick={() => move(w.step - 1)} sx={large}>
                Back
              </Button>
            )}
            {last ? (
              <Button
                variant="contained"
                disabled={busy}
                onClick={() => end.mutate({ id, version: w.version }, { onSuccess: () => void go('/care') })}
                sx={{ ...large, flex: 1 }}
              >
                Done: hang {w.blades.length === 1 ? 'it' : 'them'} up
              </Button>
            ) : (
              <Button
                variant="contained"
                disabled={busy}
                onClick={() => move(w.step + 1)}
                sx={{ ...large, flex: 1 }}
              >
                {t.rings || at.least_s === 0
                  ? `Next: ${w.steps[w.step + 1]!.title}`
                  : `${w.steps[w.step + 1]!.title} already`}
              </Button>
            )}
          </Box>
          <Box
            component="ol"
            aria-label="Steps"
            sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, listStyle: 'none', p: 0, mt: 3 }}
          >
            {w.steps.map((s, i) => (
              <Box
                component="li"
                key={s.id}
                aria-current={i === w.step ? 'step' : undefined}
                sx={{
                  fontFamily: cutFace,
                  fontSize: 17,
                  fontWeight: i === w.step ? 700 : 500,
                  color: i <= w.step ? 'text.primary' : 'text.secondary',
                  borderBottom: i === w.step ? '3px solid' : 'none',
                }}
              >
                {s.title}
              </Box>
            ))}
          </Box>
          <Button
            size="small"
            color="error"
            sx={{ mt: 3 }}
            disabled={busy}
            onClick={() => drop.mutate(id, { onSuccess: () => void go('/care') })}
          >
            Give this wash up
          </Button>
        </Box>
      )}
    </Box>
  );
}

const large = { minHeight: 64, px: 3, fontSize: 19 };
