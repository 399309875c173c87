/** Where Core of this build is served from. */
declare const __CORE__: string;
/** What this build is called. */
declare const __BUILD__: string;
/** Of what reads PDF files. */
declare const __PDF__: string;

/** A catalogue of words, compiled when the application is built. */
declare module '*.po' {
  import type { Messages } from '@lingui/core';
  export const messages: Messages;
}
