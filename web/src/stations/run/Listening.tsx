/** Listening to the saw: off until it is asked for, with a mark that nobody misses while it is on. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import type { Listening as Ears } from '../../api/listening';
import type { HeardSaw } from '../../api/types';
import { SpeedTrack } from '../../drawings/SpeedTrack';
import { cutFace } from '../../drawings/theme';
import { trim } from '../../measure/format';
import { Notice, Trouble } from '../../ui/Notice';

interface Props {
  ears: Ears;
  trace: string; // the address of Trace for this cut
}

const doings = (): Record<HeardSaw['doing'], string> => ({
  silent: t`no saw heard`,
  turning: t`running`,
  idling: t`idling`,
  cutting: t`cutting`,
  labouring: t`working hard`,
  stalled: t`stalled`,
});

/** What is said over everything else, in colour and by sound. */
const alarms: readonly HeardSaw['doing'][] = ['labouring', 'stalled'];

export function Listening({ ears, trace }: Props) {
  const { heard } = ears;
  const doing = heard?.doing ?? 'silent';
  const alarmed = alarms.includes(doing);
  useAlarm(ears.on ? doing : 'silent');
  if (!ears.on)
    return (
      <Box component="section" aria-label={t`Listening`} sx={{ my: 1 }}>
        <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
          <Button
            variant="outlined"
            onClick={ears.start}
            disabled={ears.starting}
            sx={{ minHeight: 52, fontSize: 17 }}
          >
            {ears.starting ? t`Waiting for the microphone…` : t`Listen to the saw`}
          </Button>
          <Box sx={{ flex: 1, minWidth: 200, fontSize: 14.5, color: 'text.secondary' }}>
            {t`Counts and times your cuts by sound. Nothing is recorded.`}
          </Box>
        </Box>
        {ears.trouble && <Trouble sx={{ mt: 1 }}>{ears.trouble}</Trouble>}
      </Box>
    );
  const cuts = heard?.cuts ?? [];
  const latest = cuts.at(-1);
  const idle = heard?.idle_rpm;
  const rpm = doing === 'stalled' ? undefined : heard?.rpm; // what is heard of a blade that stands is not it
  const count = heard?.fill?.pieces ?? 0;
  return (
    <Box
      component="section"
      aria-label={t`Listening`}
      sx={{
        my: 1,
        p: 1.5,
        border: '3px solid',
        borderColor: alarmed ? 'error.main' : 'text.primary',
        ...(alarmed && { bgcolor: 'error.main', color: 'background.paper' }),
      }}
    >
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, fontWeight: 700, mr: 'auto' }}>
          <svg width={18} height={18} viewBox="0 0 18 18" aria-hidden focusable="false">
            <circle cx={9} cy={9} r={8} fill="currentColor" />
          </svg>
          {t`The microphone is on`}
        </Box>
        {ears.here && <Box sx={{ fontSize: 14.5 }}>{t`measured in this browser`}</Box>}
        <Button variant="outlined" color="inherit" onClick={ears.stop} sx={{ minHeight: 52 }}>
          {t`Stop listening`}
        </Button>
      </Box>
      <Box sx={{ display: 'flex', columnGap: 4, flexWrap: 'wrap', alignItems: 'baseline', mt: 0.5 }}>
        <Box role="status" sx={{ fontFamily: cutFace, fontSize: 34, fontWeight: 640, lineHeight: 1.15 }}>
          {doings()[doing]}
        </Box>
        <Box sx={{ fontSize: 17 }}>
          {idle !== undefined &&
            (rpm === undefined ? t`idling at ${idle} rpm` : t`${rpm} of ${idle} rpm at idle`)}
        </Box>
        <Box role="status" sx={{ fontSize: 17, fontWeight: 650 }}>
          {count === 0 ? t`no cut yet` : count === 1 ? t`1 cut` : t`${count} cuts`}
          {latest &&
            ` · ${t`last cut ${trim(latest.end_s - latest.start_s, 1)} s, ${trim(latest.droop_percent, 1)} % slower`}`}
        </Box>
      </Box>
      <SpeedTrack rpm={rpm} idle={idle} at={heard?.at_s ?? 0} />
      {heard?.says.map((s) => (
        <Notice key={s} kind="caution" sx={{ mt: 1, bgcolor: 'background.paper' }}>
          {s}
        </Notice>
      ))}
      {(heard?.signs.length ?? 0) > 0 && (
        <Button
          component={Link}
          to={`${trace}&${new URLSearchParams(heard?.signs.map((s) => ['seen', s]))}`}
          variant="outlined"
          color="inherit"
          sx={{ mt: 1 }}
        >
          {t`Diagnose this sound`}
        </Button>
      )}
    </Box>
  );
}

/** Two short tones when it begins to labour, a long low one when it stalls: told apart without looking. */
function useAlarm(doing: HeardSaw['doing']) {
  const audio = useRef<AudioContext>(undefined);
  useEffect(() => {
    if (!alarms.includes(doing)) return;
    audio.current ??= new AudioContext();
    const out = audio.current;
    const beep = (at: number, hz: number, long: number) => {
      const tone = out.createOscillator();
      const gain = out.createGain();
      tone.frequency.value = hz;
      gain.gain.setValueAtTime(0.5, out.currentTime + at);
      gain.gain.exponentialRampToValueAtTime(0.001, out.currentTime + at + long);
      tone.connect(gain).connect(out.destination);
      tone.start(out.currentTime + at);
      tone.stop(out.currentTime + at + long);
    };
    if (doing === 'stalled') beep(0, 440, 0.9);
    else [0, 0.25].forEach((at) => beep(at, 1760, 0.15));
    navigator.vibrate?.(doing === 'stalled' ? 800 : [120, 80, 120]);
  }, [doing]);
  useEffect(() => () => void audio.current?.close(), []);
}
