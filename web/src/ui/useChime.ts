import { useEffect, useRef } from 'react';

/** Rings, and shakes the device, every few seconds while it should. A browser lets it once the page was touched. */
export function useChime(rings: boolean) {
  const audio = useRef<AudioContext>(undefined);
  useEffect(() => {
    if (!rings) return;
    const ring = () => {
      navigator.vibrate?.([200, 100, 200]);
      if (!navigator.userActivation?.hasBeenActive) return;
      audio.current ??= new AudioContext();
      const at = audio.current.currentTime;
      for (const [i, hz] of [660, 880].entries()) {
        const tone = audio.current.createOscillator();
        const gain = audio.current.createGain();
        tone.frequency.value = hz;
        gain.gain.setValueAtTime(0.3, at + i * 0.25);
        gain.gain.exponentialRampToValueAtTime(0.001, at + i * 0.25 + 0.6);
        tone.connect(gain).connect(audio.current.destination);
        tone.start(at + i * 0.25);
        tone.stop(at + i * 0.25 + 0.65);
      }
    };
    ring();
    const timer = setInterval(ring, 4000);
    return () => clearInterval(timer);
  }, [rings]);
}
