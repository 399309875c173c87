import { t } from '@lingui/core/macro';
import { TextAaIcon } from '@phosphor-icons/react';
import { turning } from './offering';
import type { Offer } from '../hand/tool';

/** Finding what is typed on the page, and putting other words in its place. */
export const find: Offer = {
  ...turning('find'),
  words: () => t`Find words`,
  title: t`Find words`,
  icon: () => TextAaIcon,
  key: 'j',
};
