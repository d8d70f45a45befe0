/** What is heard of a saw: the motor's note, and the teeth that pass, louder under load. Off until somebody asks for it. */
import { useCallback, useEffect, useRef, useState } from 'react';

export interface Heard {
  turns: number; // of the arbor a minute
  teeth: number;
  load: number; // of the power limit; 0 where it runs free
}

interface Voices {
  audio: AudioContext;
  motor: OscillatorNode;
  teeth: OscillatorNode;
  bite: GainNode;
  all: GainNode;
}

const POLES = 2; // times a turn that the motor hums
const LOUD = 0.16;

function begin(): Voices {
  const audio = new AudioContext();
  const all = audio.createGain();
  const bite = audio.createGain();
  const motor = audio.createOscillator();
  const teeth = audio.createOscillator();
  motor.type = 'triangle';
  teeth.type = 'sawtooth';
  all.gain.value = 0;
  bite.gain.value = 0;
  motor.connect(all);
  teeth.connect(bite).connect(all);
  all.connect(audio.destination);
  motor.start();
  teeth.start();
  return { audio, motor, teeth, bite, all };
}

export function useNote() {
  const [on, setOn] = useState(false);
  const voices = useRef<Voices>(undefined);
  const quiet = useCallback(() => {
    const v = voices.current;
    v?.all.gain.setTargetAtTime(0, v.audio.currentTime, 0.05);
  }, []);
  const hear = useCallback((h: Heard) => {
    const v = voices.current;
    if (!v) return;
    const now = v.audio.currentTime;
    v.motor.frequency.setTargetAtTime((h.turns / 60) * POLES, now, 0.04);
    v.teeth.frequency.setTargetAtTime((h.turns / 60) * h.teeth, now, 0.04);
    v.bite.gain.setTargetAtTime(0.04 + 0.3 * Math.min(1.5, h.load), now, 0.04);
    v.all.gain.setTargetAtTime(LOUD, now, 0.04);
  }, []);
  const end = () => {
    void voices.current?.audio.close();
    voices.current = undefined;
  };
  useEffect(() => end, []);
  const toggle = () => {
    if (on) end();
    else voices.current = begin();
    setOn(!on);
  };
  return { on, toggle, hear, quiet };
}

export type Note = ReturnType<typeof useNote>;
