/**
 * The language of what the front end says by itself. English stands where it is
 * said, and src/locales/en.po gathers it (`npm run sentences`). Another language is
 * a file beside it, loaded before the first word is said: main.tsx waits for it.
 */
import { i18n, type Messages } from '@lingui/core';

const KEY = 'corte.language';
const ENGLISH = 'en';

const files = import.meta.glob<Messages>(['./locales/*.po', '!./locales/en.po'], { import: 'messages' });
const fileOf = (tag: string) => files[`./locales/${tag}.po`];

/** The languages that pages can be in. */
export const tags = [
  ENGLISH,
  ...Object.keys(files).map((path) => path.slice('./locales/'.length, -'.po'.length)),
];

/** What was chosen here, or else the first of the browser's languages that pages can be in. */
function wanted(): string {
  const asked = [localStorage.getItem(KEY) ?? '', ...navigator.languages].map((tag) => tag.split('-')[0]!);
  return asked.find((tag) => tag === ENGLISH || fileOf(tag)) ?? ENGLISH;
}

/** Takes a language from now on, and begins anew: what was said already stays as it was said. */
export function speak(tag: string) {
  localStorage.setItem(KEY, tag);
  location.reload();
}

async function begin() {
  const tag = wanted();
  // A file that can't be had leaves English, which stands in the code.
  const messages = await fileOf(tag)?.().catch(() => undefined);
  const locale = messages ? tag : ENGLISH;
  i18n.loadAndActivate({ locale, messages: messages ?? {} });
  document.documentElement.lang = locale;
  // The server says the rest in the same language, whatever the browser's own is.
  document.cookie = `corte-language=${locale}; path=/; max-age=31536000; samesite=lax`;
}

/** Resolves once words can be said. */
export const spoken = begin();

export { i18n };
