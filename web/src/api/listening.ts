/** Listening to a saw: blocks of sound go to the server over one connection, or to the core in this browser where it is away. */
import { t } from '@lingui/core/macro';
import { useCallback, useEffect, useRef, useState } from 'react';
import tapUrl from '../listen/tap.ts?worker&url';
import { ProblemError } from './client';
import { api } from './place';
import type { FilledIn, HeardSaw } from './types';

/** What takes blocks of sound. Each is answered, by onHeard. */
interface Ear {
  hear: (block: ArrayBuffer) => void;
  close: () => void;
}

type Of = { saw: string; blade: string; rate: number };

const PATIENCE = 4000; // ms that the server is waited for
const SHORT = 2000; // ms: a line lost sooner than that is no line to the server

/** The server's ear; refused where it does not open. */
const theServer = (of: Of, onHeard: (h: HeardSaw) => void, onLost: () => void) =>
  new Promise<Ear>((done, fail) => {
    const address = new URL(`${api}/listening`, window.location.href);
    address.protocol = address.protocol.replace('http', 'ws');
    address.search = new URLSearchParams({
      saw_id: of.saw,
      blade_id: of.blade,
      rate: String(of.rate),
    }).toString();
    const line = new WebSocket(address);
    line.binaryType = 'arraybuffer';
    let open = false;
    const late = setTimeout(() => line.close(), PATIENCE);
    line.onopen = () => {
      clearTimeout(late);
      open = true;
      done({
        hear: (block) => line.readyState === WebSocket.OPEN && line.send(block),
        close: () => {
          line.onclose = null;
          line.close();
        },
      });
    };
    line.onmessage = (e: MessageEvent<string>) => onHeard(JSON.parse(e.data) as HeardSaw);
    line.onclose = () => {
      clearTimeout(late);
      if (open) onLost();
      else fail(new Error('no line'));
    };
  });

/** The ear in this browser, over the shelf that was last seen. */
async function here(of: Of, onHeard: (h: HeardSaw) => void): Promise<Ear> {
  const { listenHere, hearHere } = await import('./core');
  if (!(await listenHere(of.saw, of.blade, of.rate)))
    throw new Error(t`You're offline, and listening hasn't been used on this device before.`);
  let open = true;
  return {
    hear: (block) =>
      void hearHere(new Uint8Array(block)).then(
        (h) => open && h && onHeard(h),
        () => undefined, // the next block says more
      ),
    close: () => (open = false),
  };
}

/** A line to an ear that is made anew where it is lost: to the server, else here. */
class Line {
  private ear: Ear | undefined;
  private ended = false;

  constructor(
    private readonly of: Of,
    private readonly on: {
      heard: (h: HeardSaw) => void;
      here: (here: boolean) => void;
      lost: () => void;
      failed: (e: Error) => void;
    },
  ) {}

  async open(server = true) {
    const began = performance.now();
    const lost = () => {
      this.ear = undefined;
      this.on.lost();
      void this.open(performance.now() - began > SHORT).catch(this.on.failed);
    };
    let away = !server;
    const next = await (
      server ? theServer(this.of, this.on.heard, lost) : Promise.reject(new Error('no line'))
    ).catch(() => {
      away = true;
      return here(this.of, this.on.heard);
    });
    if (this.ended) return next.close(); // meanwhile
    this.ear = next;
    this.on.here(away);
  }

  hear(block: ArrayBuffer) {
    this.ear?.hear(block);
  }

  close() {
    this.ended = true;
    this.ear?.close();
  }
}

/** Two counts of pieces as one: what was heard before a line was lost, and after. */
const both = (a: FilledIn | undefined, b: FilledIn | undefined): FilledIn | undefined =>
  a && b
    ? {
        ...b,
        pieces: a.pieces + b.pieces,
        seconds:
          Math.round((10 * (a.seconds * a.pieces + b.seconds * b.pieces)) / (a.pieces + b.pieces)) / 10,
      }
    : (a ?? b);

export interface Listening {
  on: boolean;
  starting: boolean;
  here: boolean; // it is worked out in this browser
  heard: HeardSaw | undefined;
  trouble: string | undefined;
  start: () => void;
  stop: () => void;
  afresh: () => void; // the pieces so far are logged
}

/** Listens to a saw and the blade that is on it, from start to stop. */
export function useListening(saw: string | undefined, blade: string | undefined): Listening {
  const [state, setState] = useState<'off' | 'starting' | 'on'>('off');
  const [away, setAway] = useState(false);
  // What was heard is of one saw and blade, and counts for no other.
  const of = `${saw} ${blade}`;
  const [said, setSaid] = useState<{ of: string; heard: HeardSaw }>();
  const heard = said?.of === of ? said.heard : undefined;
  const [trouble, setTrouble] = useState<string>();
  const line = useRef<Line>(undefined);
  const sound = useRef<{ context: AudioContext; stream: MediaStream }>(undefined);
  const before = useRef<FilledIn>(undefined);
  const last = useRef<HeardSaw>(undefined);
  const stop = useCallback(() => {
    line.current?.close();
    line.current = undefined;
    sound.current?.stream.getTracks().forEach((track) => track.stop());
    void sound.current?.context.close();
    sound.current = undefined;
    setState('off');
  }, []);
  // Another saw or blade is listened to anew.
  useEffect(() => stop, [stop, saw, blade]);

  const open = (rate: number) => {
    line.current?.close();
    line.current = new Line(
      { saw: saw!, blade: blade!, rate },
      {
        heard: (h) => {
          last.current = { ...h, fill: both(before.current, h.fill) };
          setSaid({ of, heard: last.current });
        },
        here: setAway,
        lost: () => (before.current = last.current?.fill),
        failed: (e) => {
          setTrouble(e.message);
          stop();
        },
      },
    );
    return line.current.open();
  };

  const start = async () => {
    if (!saw || !blade) return;
    setState('starting');
    setTrouble(undefined);
    setSaid(undefined);
    last.current = before.current = undefined;
    try {
      const stream = await microphone();
      const context = new AudioContext();
      sound.current = { context, stream };
      await context.audioWorklet.addModule(tapUrl);
      await open(context.sampleRate);
      if (sound.current?.context !== context) return; // it was stopped meanwhile
      const tap = new AudioWorkletNode(context, 'tap', { numberOfOutputs: 0 });
      tap.port.onmessage = ({ data }: MessageEvent<ArrayBuffer>) => line.current?.hear(data);
      context.createMediaStreamSource(stream).connect(tap);
      setState('on');
    } catch (e) {
      setTrouble(why(e));
      stop();
    }
  };
  const afresh = () => {
    before.current = last.current = undefined;
    setSaid((now) => now && { ...now, heard: { ...now.heard, cuts: [], fill: undefined } });
    const context = sound.current?.context;
    if (!context || !saw || !blade) return;
    void open(context.sampleRate).catch((e: Error) => {
      setTrouble(e.message);
      stop();
    });
  };
  return {
    on: state === 'on',
    starting: state === 'starting',
    here: away,
    heard,
    trouble,
    start: () => void start(),
    stop,
    afresh,
  };
}

/** The microphone as it is: what a telephone does for voices takes a saw for noise. */
function microphone() {
  // A browser lends it to pages that came safely: from this machine, or over TLS.
  if (!('mediaDevices' in navigator)) throw new DOMException('', 'SecurityError');
  return navigator.mediaDevices.getUserMedia({
    audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false, channelCount: 1 },
  });
}

function why(e: unknown) {
  if (e instanceof ProblemError || !(e instanceof DOMException)) return (e as Error).message;
  return (
    {
      NotAllowedError: t`The browser blocks the microphone. Allow it for this page and try again.`,
      NotFoundError: t`No microphone found. Connect one and try again.`,
      SecurityError: t`The browser allows the microphone only over https, or on this computer.`,
    }[e.name] ?? t`Can't use the microphone. Another program may be using it.`
  );
}
