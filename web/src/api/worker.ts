/**
 * The core in this browser, for as long as the server is away: the same Go,
 * compiled for it (cmd/corte-offline), beside the page, over the shelf that was
 * last seen.
 */
import goUrl from '../../wasm/wasm_exec.js?url';
import coreUrl from '../../wasm/core.wasm?url';

export interface Question {
  id: number;
  shelf?: string; // where it is another than before
  language?: string; // what the core speaks from then on
  address: string;
  body: string;
  picture?: Picture; // what a look is asked of
  listen?: { saw: string; blade: string; rate: number }; // what is listened to from now on
  block?: Uint8Array; // of its sound
}

/** A picture's pixels, four bytes each from the upper left corner on, and the places that were shown, in shares of its sides. */
export interface Picture {
  wide: number;
  high: number;
  pix: Uint8Array;
  places: number[];
}

export interface Answer {
  id: number;
  status: number;
  body: string;
}

interface Core {
  shelf: (json: string, language: string) => string;
  ask: (address: string, json: string) => [number, string];
  listen: (saw: string, blade: string, rate: number) => [number, string];
  hear: (block: Uint8Array) => [number, string];
  look: (
    address: string,
    json: string,
    pix: Uint8Array,
    wide: number,
    high: number,
    places: number[],
  ) => [number, string];
}

declare const self: {
  importScripts: (url: string) => void;
  Go: new () => { importObject: WebAssembly.Imports; run: (i: WebAssembly.Instance) => Promise<void> };
  corteAway: Core;
  onmessage: (e: MessageEvent<Question>) => void;
  postMessage: (a: Answer) => void;
};

async function load(): Promise<Core> {
  self.importScripts(goUrl);
  const go = new self.Go();
  const bytes = await (await fetch(coreUrl)).arrayBuffer();
  const { instance } = await WebAssembly.instantiate(bytes, go.importObject);
  void go.run(instance); // it runs until the page lets go of it
  return self.corteAway;
}

let core: Promise<Core> | undefined;

/** Asks the core what a question is about. */
function put(c: Core, { address, body, picture: p, listen: l, block }: Question) {
  if (p) return c.look(address, body, p.pix, p.wide, p.high, p.places);
  if (l) return c.listen(l.saw, l.blade, l.rate);
  if (block) return c.hear(block);
  return c.ask(address, body);
}

async function answer(question: Question) {
  const { id, shelf, language } = question;
  try {
    const c = await (core ??= load());
    const wrong = shelf === undefined ? '' : c.shelf(shelf, language ?? 'en');
    if (wrong) throw new Error(wrong);
    const [status, answer] = put(c, question);
    self.postMessage({ id, status, body: answer });
  } catch (e) {
    console.error(e);
    core = undefined; // it is loaded anew for the next question
    self.postMessage({ id, status: 503, body: '{}' });
  }
}

self.onmessage = ({ data }) => void answer(data);
