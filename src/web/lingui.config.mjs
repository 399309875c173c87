import frontEnd from '@lingui/cli/api/extractors/babel';
import { formatter } from '@lingui/format-po';
import { sentences } from './build/sentences.mjs';

/** The words of the interface: one catalogue a language in src/words, taken out of the front end and of what Core and the server may answer. */
export default {
  sourceLocale: 'en',
  locales: ['en', 'de'],
  // Whatever has no translation yet is shown in English; `npm run words:check` does not let that pass.
  fallbackLocales: { default: 'en' },
  catalogs: [
    {
      path: '<rootDir>/src/words/{locale}',
      include: [
        '<rootDir>/src',
        '<rootDir>/../CalmQuill.Core',
        '<rootDir>/../CalmQuill.Core.Browser',
        '<rootDir>/../CalmQuill.Documents',
        '<rootDir>/../CalmQuill.Store',
        '<rootDir>/../CalmQuill.Server',
      ],
      exclude: ['**/obj/**', '**/bin/**'],
    },
  ],
  format: formatter({ lineNumbers: false }),
  orderBy: 'message',
  extractors: [frontEnd, sentences],
};
