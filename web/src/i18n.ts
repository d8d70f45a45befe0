/**
 * The language of what the front end says by itself. English stands where it is
 * said, and src/locales/en.po gathers it (`npm run sentences`). Another language
 * is a copy of that file, translated and compiled; whoever chooses it keeps it in
 * this browser, so that it is there before the first word is said. This module is
 * evaluated before any other.
 */
import { i18n, type Messages } from '@lingui/core';

const KEY = 'corte.language';

interface Language {
  locale: string;
  messages: Messages;
}

const kept = localStorage.getItem(KEY);

i18n.loadAndActivate(kept ? (JSON.parse(kept) as Language) : { locale: 'en', messages: {} });

export { i18n };
