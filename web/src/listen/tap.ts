/** What the microphone hears, in blocks of a twentieth of a second, as whole numbers of two bytes. Runs beside the page, where sound comes in. */
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare const sampleRate: number;
declare function registerProcessor(name: string, of: new () => AudioWorkletProcessor): void;

const LONG = Math.round(sampleRate / 20);

class Tap extends AudioWorkletProcessor {
  private block = new Int16Array(LONG);
  private filled = 0;

  process([input]: Float32Array[][]) {
    for (const sample of input?.[0] ?? []) {
      this.block[this.filled++] = Math.max(-1, Math.min(1, sample)) * 32767;
      if (this.filled < LONG) continue;
      this.port.postMessage(this.block.buffer, [this.block.buffer]);
      this.block = new Int16Array(LONG);
      this.filled = 0;
    }
    return true;
  }
}

registerProcessor('tap', Tap);
