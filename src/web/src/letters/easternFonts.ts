import { byName } from './byName';

/** The slices of the fonts of Chinese, Japanese and Korean: several hundred addresses, which only who writes in one of them needs. */
export const files = byName(
  import.meta.glob<string>('../../../fonts/eastern/*.ttf', { query: '?url', import: 'default', eager: true }),
);
