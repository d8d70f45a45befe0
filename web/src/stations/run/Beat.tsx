/**
 * A bar to feed by: it moves over the length of this cut at the feed that is
 * suggested, between the marks of the slowest and the fastest feed that still
 * cut well. Read from three metres, started by a tap, with a count-in to get
 * the hands in place.
 */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { HeardSaw, Units } from '../../api/types';
import { ink } from '../../drawings/ink';
import { formatLength, trim } from '../../measure/format';

const COUNT = 3; // seconds of count-in
const HEARD_LATE = 250; // ms after which the teeth's first wood is heard
const BEAT_MM: Record<Units, number> = { mm: 100, in: 101.6 };
/** A run that nobody ended is given up after so many times its own length. */
const FORGOTTEN = 4;

interface Props {
  lengthMm: number;
  feed: number; // m/min
  slowest: number;
  fastest: number;
  units: Units;
  onThrough: (seconds: number) => void;
  heard?: HeardSaw; // where somebody listens: the bar can follow the saw
}

type State = 'ready' | 'counting' | 'running';

/** How far a feed has come after so many seconds, as a share of the cut. */
const share = (feed: number, seconds: number, lengthMm: number) =>
  Math.min(1, (feed * 1000 * seconds) / 60 / lengthMm);

export function Beat({ lengthMm, feed, slowest, fastest, units, onThrough, heard }: Props) {
  const [state, setState] = useState<State>('ready');
  const [count, setCount] = useState(COUNT);
  const [sound, setSound] = useState(false);
  const [buzz, setBuzz] = useState(false);
  const [follows, setFollows] = useState(false);
  const began = useRef(0);
  const bar = useRef<HTMLDivElement>(null);
  const band = useRef<HTMLDivElement>(null);
  const clock = useRef<HTMLSpanElement>(null);
  const audio = useRef<AudioContext>(undefined);
  const open = fastest >= slowest;
  const seconds = (lengthMm / 1000 / feed) * 60;
  // A stroke of a chop is shorter than a beat: it gets three.
  const perBeat = (Math.min(BEAT_MM[units], lengthMm / 3) / 1000 / feed) * 60;

  const tick = useCallback(
    (high: boolean) => {
      if (sound && audio.current) {
        const at = audio.current.currentTime;
        const tone = audio.current.createOscillator();
        const gain = audio.current.createGain();
        tone.frequency.value = high ? 1320 : 880;
        gain.gain.setValueAtTime(0.4, at);
        gain.gain.exponentialRampToValueAtTime(0.001, at + 0.07);
        tone.connect(gain).connect(audio.current.destination);
        tone.start(at);
        tone.stop(at + 0.08);
      }
      if (buzz) navigator.vibrate?.(high ? 60 : 25);
    },
    [sound, buzz],
  );

  const draw = useCallback(
    (it: number) => {
      const at = share(feed, it, lengthMm);
      const low = share(Math.min(slowest, fastest), it, lengthMm);
      const high = share(Math.max(slowest, fastest), it, lengthMm);
      if (bar.current) bar.current.style.left = `${100 * at}%`;
      if (band.current) {
        band.current.style.left = `${100 * low}%`;
        band.current.style.width = `${100 * (high - low)}%`;
      }
      if (clock.current) clock.current.textContent = `${Math.max(0, seconds - it).toFixed(1)} s`;
    },
    [feed, slowest, fastest, lengthMm, seconds],
  );

  useLayoutEffect(() => {
    if (clock.current) clock.current.textContent = `${trim(seconds, 1)} s`;
  }, [seconds]);

  useEffect(() => {
    if (state !== 'counting') return;
    tick(false);
    const timer = setTimeout(() => {
      if (count > 1) setCount(count - 1);
      else {
        began.current = performance.now();
        setState('running');
      }
    }, 1000);
    return () => clearTimeout(timer);
  }, [state, count, tick]);

  useEffect(() => {
    if (state !== 'running') return;
    let frame = 0;
    let beat = -1;
    const go = () => {
      const it = (performance.now() - began.current) / 1000;
      draw(it);
      const n = Math.floor(it / perBeat);
      if (n > beat && it <= seconds) {
        beat = n;
        tick(n % 3 === 0);
      }
      if (it > FORGOTTEN * seconds) setState('ready');
      else frame = requestAnimationFrame(go);
    };
    frame = requestAnimationFrame(go);
    return () => cancelAnimationFrame(frame);
  }, [state, draw, tick, perBeat, seconds]);

  // By ear: the bar goes when the teeth are in the wood, and is through when they are out.
  const cutting = follows && (heard?.doing === 'cutting' || heard?.doing === 'labouring');
  const [cut, setCut] = useState(false);
  if (cut !== cutting) {
    setCut(cutting);
    setState(cutting ? 'running' : 'ready');
  }
  useEffect(() => {
    if (cutting) began.current = performance.now() - HEARD_LATE;
  }, [cutting]);

  const start = () => {
    // A browser lets sound begin only in answer to a tap.
    if (sound) audio.current ??= new AudioContext();
    draw(0);
    setCount(COUNT);
    setState('counting');
  };
  const through = () => {
    const took = (performance.now() - began.current) / 1000;
    draw(took);
    setState('ready');
    onThrough(Math.round(took * 10) / 10);
  };
  const foot = units === 'mm' ? 300 : 304.8;
  const marks = Array.from({ length: Math.floor(lengthMm / foot) }, (_, i) => ((i + 1) * foot) / lengthMm);
  return (
    <Box component="section" aria-label={t`Feed beat`}>
      <Box
        role="img"
        aria-label={t`A bar that moves over ${formatLength(lengthMm, units)} in ${trim(seconds, 1)} seconds`}
        sx={{
          position: 'relative',
          height: { xs: 150, md: 190 },
          border: '2px solid',
          borderColor: 'text.primary',
          bgcolor: 'drawing.wood',
          overflow: 'hidden',
        }}
      >
        <svg
          width="100%"
          height="100%"
          preserveAspectRatio="none"
          viewBox="0 0 100 100"
          aria-hidden
          focusable="false"
        >
          <path
            d="M0 14Q25 9 50 15T100 13M0 33Q30 38 60 31T100 35M0 55Q20 50 55 57T100 53M0 76Q40 71 70 78T100 75M0 92Q30 96 65 90T100 93"
            stroke={ink.grain}
            strokeWidth={1.4}
            vectorEffect="non-scaling-stroke"
            fill="none"
          />
          {marks.map((m) => (
            <path
              key={m}
              d={`M${100 * m} 100v-9`}
              stroke={ink.ink}
              strokeWidth={1.5}
              vectorEffect="non-scaling-stroke"
            />
          ))}
        </svg>
        <Box
          ref={band}
          sx={{
            position: 'absolute',
            top: 0,
            bottom: 0,
            left: 0,
            width: 0,
            bgcolor: 'background.default',
            opacity: 0.75,
            borderLeft: '3px dashed',
            borderRight: '3px dotted',
            borderColor: 'text.primary',
          }}
        />
        <Box
          ref={bar}
          sx={{
            position: 'absolute',
            top: 0,
            bottom: 0,
            left: 0,
            width: 14,
            ml: '-7px',
            bgcolor: 'text.primary',
          }}
        />
        <Box
          sx={{
            position: 'absolute',
            inset: 0,
            display: 'grid',
            placeItems: 'center',
            fontSize: { xs: 76, md: 104 },
            fontWeight: 750,
            lineHeight: 1,
            color: 'text.primary',
            textShadow:
              '0 0 14px var(--mui-palette-background-paper), 0 0 5px var(--mui-palette-background-paper)',
          }}
        >
          {state === 'counting' && <span>{count}</span>}
          {/* its text is drawn frame by frame, so React leaves it alone */}
          <span ref={clock} hidden={state === 'counting'} />
        </Box>
      </Box>
      <Box
        sx={{
          display: 'flex',
          justifyContent: 'space-between',
          fontSize: 13.5,
          color: 'text.secondary',
          mt: 0.25,
          gap: 2,
        }}
      >
        <span>
          {open
            ? t`keep the cut inside the bare band: dashed is too slow, dotted too fast`
            : t`the feed range is shut: no feed cuts this well; the bar goes as fast as still may be`}
        </span>
        <Box component="span" sx={{ whiteSpace: 'nowrap' }}>
          {formatLength(lengthMm, units)}
        </Box>
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
        {state === 'running' ? (
          <Button variant="contained" onClick={through} sx={{ ...wide, flex: { xs: '1 0 100%', sm: 1 } }}>
            {t`Through`}
          </Button>
        ) : (
          <Button
            variant="contained"
            onClick={start}
            disabled={state === 'counting'}
            sx={{ ...wide, flex: { xs: '1 0 100%', sm: 1 } }}
          >
            {state === 'counting' ? t`Hands in place…` : t`Start the beat`}
          </Button>
        )}
        {state !== 'ready' && (
          <Button variant="outlined" onClick={() => setState('ready')} sx={wide}>{t`Stop the beat`}</Button>
        )}
        {heard && (
          <ToggleButton value="follow" selected={follows} onChange={() => setFollows(!follows)} sx={wide}>
            {t`Follow the saw`}
          </ToggleButton>
        )}
        <ToggleButton value="sound" selected={sound} onChange={() => setSound(!sound)} sx={wide}>
          {t`Sound`}
        </ToggleButton>
        <ToggleButton value="buzz" selected={buzz} onChange={() => setBuzz(!buzz)} sx={wide}>
          {t`Vibrate`}
        </ToggleButton>
      </Box>
      <Box role="status" sx={visuallyHidden}>
        {state === 'counting' ? t`Counting in` : state === 'running' ? t`The beat runs` : ''}
      </Box>
    </Box>
  );
}

const wide = { minHeight: 60, px: 2.5, fontSize: 18 };

const visuallyHidden = {
  position: 'absolute',
  width: '1px',
  height: '1px',
  overflow: 'hidden',
  clipPath: 'inset(50%)',
  whiteSpace: 'nowrap',
} as const;
