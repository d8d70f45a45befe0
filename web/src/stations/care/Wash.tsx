/** A wash under way: the tray as it should look now, the steps as a ladder, and the time, which the server keeps. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useNavigate, useParams } from 'react-router';
import { useDropWash, useWash } from '../../api/care';
import { useKeep } from '../../api/logging';
import { useBlades } from '../../api/rack';
import type { Wash as UnderWay } from '../../api/types';
import { useChanges } from '../../api/changes';
import { usePhone } from '../../ui/phone';
import { cutFace } from '../../drawings/theme';
import { TimerRing } from '../../drawings/TimerRing';
import { washPictures, WashView, type WashPicture } from '../../drawings/WashView';
import { ActionBar } from '../../ui/ActionBar';
import { Trouble } from '../../ui/Notice';
import { Outline } from '../../ui/Outline';
import { useChime } from '../../ui/useChime';
import { useNow } from '../../ui/useNow';
import { Sure } from '../../ui/Sure';
import { Worded } from '../../ui/Worded';
import { countdown } from '../../ui/washTimer';

export function Wash() {
  const { id = '' } = useParams();
  const phone = usePhone();
  useChanges();
  const wash = useWash(id);
  const rack = useBlades();
  const now = useNow(250);
  const step = useKeep();
  const drop = useDropWash();
  const go = useNavigate();
  const w = wash.data;
  const timer = w ? countdown(w, now) : undefined;
  useChime(timer?.rings ?? false);
  const failed = step.error ?? drop.error;
  const at = w?.steps[w.step];
  const last = w !== undefined && w.step === w.steps.length - 1;
  const busy = step.isPending || drop.isPending;
  const move = (to: number | 'end') =>
    w &&
    step.mutate(
      {
        key: crypto.randomUUID(),
        wash: { id, version: w.version, to },
        blade: `${to === 'end' ? t`cleaned` : w.steps[to]!.title}: ${w.blades.map((b) => b.name).join(', ')}`,
      },
      { onSuccess: () => void (to === 'end' && go('/care')) },
    );
  if (!w || !at || !timer)
    return (
      <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
        <Typography variant="h1">{t`Cleaning`}</Typography>
        {wash.error ? <Trouble>{wash.error.message}</Trouble> : <Outline rows={3} height={140} drawing />}
      </Box>
    );
  const blades = (rack.data ?? []).filter((b) => w.blades.some((n) => n.id === b.id));
  const buttons = (
    <Box sx={{ display: 'flex', gap: 1, width: '100%', px: { xs: 1, sm: 0 } }}>
      {w.step > 0 && (
        <Button variant="outlined" disabled={busy} onClick={() => move(w.step - 1)} sx={large}>
          {t`Back`}
        </Button>
      )}
      {last ? (
        <Button variant="contained" disabled={busy} onClick={() => move('end')} sx={{ ...large, flex: 1 }}>
          {plural(w.blades.length, { one: 'Done. Put it back', other: 'Done. Put them back' })}
        </Button>
      ) : (
        <Button
          variant="contained"
          disabled={busy}
          onClick={() => move(w.step + 1)}
          sx={{ ...large, flex: 1 }}
        >
          {timer.rings || at.least_s === 0
            ? t`Next: ${w.steps[w.step + 1]!.title}`
            : t`${w.steps[w.step + 1]!.title} already`}
        </Button>
      )}
    </Box>
  );
  return (
    <Box
      component="main"
      sx={{
        px: { xs: 2, md: 3 },
        pt: 1.5,
        pb: phone ? 0 : 2,
        minHeight: '100%',
        display: 'flex',
        flexDirection: 'column',
      }}
    >
      <Typography variant="h1">{at.title}</Typography>
      <Box sx={{ color: 'text.secondary', mb: 1 }}>
        {t`${w.blades.map((b) => b.name).join(', ')} in ${w.cleaner.name}. Step ${w.step + 1} of ${w.steps.length}`}
      </Box>
      {failed && <Trouble sx={{ mb: 1 }}>{failed.message}</Trouble>}
      <Box
        component="section"
        aria-label={t`Step`}
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0,1fr)', md: '132px minmax(0, 1fr) 340px' },
          columnGap: 4,
          rowGap: 1,
          alignItems: 'start',
        }}
      >
        <Ladder wash={w} phone={phone} />
        <Box sx={{ maxWidth: 620, width: '100%', justifySelf: 'center' }}>
          <WashView picture={washPictures.has(at.id) ? (at.id as WashPicture) : 'soak'} blades={blades} />
        </Box>
        <Box>
          <Box
            sx={{ display: 'flex', flexDirection: { xs: 'row', md: 'column' }, gap: 2, alignItems: 'center' }}
          >
            <Box
              role="timer"
              aria-label={timer.text ? `${timer.text} ${timer.says}` : timer.says}
              sx={{ minHeight: { xs: 96, md: 190 }, display: 'grid', placeItems: 'center' }}
            >
              {timer.text && (
                <TimerRing share={timer.share} text={timer.text} size={phone ? 96 : 190} late={timer.rings} />
              )}
            </Box>
            <Box sx={{ fontSize: 18, lineHeight: 1.4 }}>
              <Box role="status" sx={{ fontWeight: 650, minHeight: { md: 26 } }}>
                {timer.says !== 'to go' && timer.says}
              </Box>
              <Worded>{at.text}</Worded>
            </Box>
          </Box>
          {!phone && <Box sx={{ mt: 2 }}>{buttons}</Box>}
          <Sure
            color="error"
            sx={{ mt: 1 }}
            disabled={busy}
            asks={t`Stop cleaning?`}
            goes={t`Nothing is logged. The blades count as not cleaned.`}
            yes={t`Stop cleaning`}
            onYes={() => drop.mutate(id, { onSuccess: () => void go('/care') })}
          >
            {t`Stop cleaning`}
          </Sure>
        </Box>
      </Box>
      {phone && (
        <Box sx={{ mt: 'auto', position: 'sticky', bottom: 0 }}>
          <ActionBar>{buttons}</ActionBar>
        </Box>
      )}
    </Box>
  );
}

/** Where one is: every step, those that are done filled in. */
function Ladder({ wash: w, phone }: { wash: UnderWay; phone: boolean }) {
  return (
    <Box
      component="ol"
      aria-label={t`Steps`}
      sx={{
        listStyle: 'none',
        m: 0,
        p: 0,
        display: 'flex',
        flexDirection: { xs: 'row', md: 'column' },
        justifyContent: 'space-between',
        borderLeft: { md: '2px solid' },
        borderTop: { xs: '2px solid', md: 0 },
        borderColor: 'drawing.hair',
        minHeight: { md: 300 },
        mt: { xs: 1, md: 3 },
      }}
    >
      {w.steps.map((s, i) => (
        <Box
          component="li"
          key={s.id}
          aria-current={i === w.step ? 'step' : undefined}
          sx={{
            position: 'relative',
            pl: { md: 2.5 },
            pt: { xs: 1.25, md: 0 },
            fontFamily: cutFace,
            fontSize: phone ? 16 : 18,
            fontWeight: i === w.step ? 700 : 500,
            color: i <= w.step ? 'text.primary' : 'text.secondary',
            '&::before': {
              content: '""',
              position: 'absolute',
              left: { xs: 'calc(50% - 7px)', md: -8 },
              top: { xs: -8, md: 5 },
              width: 14,
              height: 14,
              borderRadius: '50%',
              border: '2px solid',
              borderColor: 'text.primary',
              bgcolor: i < w.step ? 'text.primary' : i === w.step ? 'primary.main' : 'background.default',
            },
          }}
        >
          {s.title}
        </Box>
      ))}
    </Box>
  );
}

const large = { minHeight: { xs: 48, sm: 60 }, px: { xs: 2, sm: 3 }, fontSize: { xs: 17, sm: 19 } };
