import { defineConfig } from '@lingui/conf';
import { formatter } from '@lingui/format-po';

/** How sentences are gathered: out of src into a catalogue for each language. */
export default defineConfig({
  sourceLocale: 'en',
  locales: ['en', 'es'],
  catalogs: [{ path: 'src/locales/{locale}', include: ['src'] }],
  orderBy: 'message',
  format: formatter({ lineNumbers: false, explicitIdAsDefault: false }),
  // What says a sentence brings the language along, whichever file is evaluated first.
  runtimeConfigModule: ['/src/i18n', 'i18n'],
});
