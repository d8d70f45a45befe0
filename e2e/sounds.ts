/** Sounds that the journeys' microphone hears: made up, since no saw is there. */
import { chromium, type Page } from '@playwright/test';
import { writeFileSync } from 'node:fs';
import { executablePath } from './browser';

export interface SawSound {
  teeth: number;
  idle: number; // a minute
  seconds: number;
  cuts: { from: number; to: number; droop: number }[];
  stall?: number; // s at which the blade stops in the work
}

const RATE = 48000;

/** A saw that runs up, idles and cuts, over an extractor's noise, as a WAV. */
export function sawSound(s: SawSound) {
  const n = Math.round(s.seconds * RATE);
  const wav = Buffer.alloc(44 + 2 * n);
  wav.write('RIFF', 0);
  wav.writeUInt32LE(36 + 2 * n, 4);
  wav.write('WAVEfmt ', 8);
  wav.writeUInt32LE(16, 16);
  wav.writeUInt16LE(1, 20); // plain samples
  wav.writeUInt16LE(1, 22); // of one channel
  wav.writeUInt32LE(RATE, 24);
  wav.writeUInt32LE(2 * RATE, 28);
  wav.writeUInt16LE(2, 32);
  wav.writeUInt16LE(16, 34);
  wav.write('data', 36);
  wav.writeUInt32LE(2 * n, 40);
  let teeth = 0;
  let seed = 7;
  for (let i = 0; i < n; i++) {
    const at = i / RATE;
    let rpm = s.idle * Math.min(1, at / 1.2);
    for (const c of s.cuts) {
      const into = Math.max(0, Math.min(1, (at - c.from) / 0.12, (c.to - at) / 0.12));
      rpm -= into * c.droop * s.idle;
    }
    if (s.stall !== undefined && at > s.stall) rpm = Math.max(0, rpm * (1 - (at - s.stall) / 0.4));
    teeth += ((rpm / 60) * s.teeth) / RATE;
    seed = (seed * 16807) % 2147483647;
    let x = 0.03 * (seed / 1073741824 - 1);
    if (rpm > 0) for (let h = 1; h <= 4; h++) x += (0.12 / h) * Math.sin(2 * Math.PI * h * teeth + h);
    wav.writeInt16LE(Math.round(32767 * Math.max(-1, Math.min(1, x))), 44 + 2 * i);
  }
  return wav;
}

/** A page whose microphone hears a sound, once, from when it is asked for. */
export async function withSound(
  sound: SawSound,
  folder: string,
  base: string,
  use: (page: Page) => Promise<void>,
) {
  const file = `${folder}/saw.wav`;
  writeFileSync(file, sawSound(sound));
  const browser = await chromium.launch({
    executablePath,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-audio-capture=${file}%noloop`,
    ],
  });
  try {
    const context = await browser.newContext({ baseURL: base, locale: 'en-GB', reducedMotion: 'reduce' });
    await use(await context.newPage());
  } finally {
    await browser.close();
  }
}
