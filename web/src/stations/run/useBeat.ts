/** The clock of the beat: count-in, beats that are heard or felt, and what moves with it, frame by frame. */
import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { HeardSaw, Units } from '../../api/types';
import { fixed, trim } from '../../measure/format';

const COUNT = 3; // seconds of count-in
const HEARD_LATE = 250; // ms after which the teeth's first wood is heard
const BEAT_MM: Record<Units, number> = { mm: 100, in: 101.6 };
/** A run that nobody ended is given up after so many times its own length. */
const FORGOTTEN = 4;

export interface Beaten {
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

/** The refs go to what is moved: the bar at the feed, the band between slowest and fastest, and the seconds that are left. */
export function useBeat({ lengthMm, feed, slowest, fastest, units, onThrough, heard }: Beaten) {
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
      if (clock.current) clock.current.textContent = `${fixed(Math.max(0, seconds - it), 1)} s`;
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
  return {
    ...{ state, count, seconds, start, through, stop: () => setState('ready') },
    ...{ sound, setSound, buzz, setBuzz, follows, setFollows },
    ...{ bar, band, clock },
  };
}
