import { t } from '@lingui/core/macro';
import { MagnifyingGlassPlusIcon } from '@phosphor-icons/react';
import { turning } from './offering';
import type { Offer } from '../hand/tool';

/** The close-up strip at the foot. */
export const loupe: Offer = {
  ...turning('loupe'),
  words: () => t`Loupe`,
  title: t`Loupe`,
  icon: () => MagnifyingGlassPlusIcon,
  key: 'o',
};
