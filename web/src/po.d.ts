/** A language's sentences, compiled by Lingui's plugin while the front end is built. */
declare module '*.po' {
  import type { Messages } from '@lingui/core';
  export const messages: Messages;
}
