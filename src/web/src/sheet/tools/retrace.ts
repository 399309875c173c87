import { t } from '@lingui/core/macro';
import { FilmStripIcon } from '@phosphor-icons/react';
import { turning } from './offering';
import type { Offer } from '../hand/tool';

/** Seeing the page written once more. */
export const retrace: Offer = {
  ...turning('retrace'),
  words: () => t`Retrace`,
  title: t`Retrace`,
  icon: () => FilmStripIcon,
  key: 'w',
};
