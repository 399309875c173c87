import { t } from '@lingui/core/macro';
import { NoteBlankIcon } from '@phosphor-icons/react';
import { turning } from './offering';
import type { Offer } from '../hand/tool';

/** Writing on one's own sheet over the page, which nobody else sees. */
export const aside: Offer = {
  ...turning('aside'),
  press: (tools) => {
    // Whoever takes it up means to write.
    if (!tools.isOn('aside')) tools.setReading(false);
    tools.turn('aside', !tools.isOn('aside'));
  },
  words: () => t`Aside`,
  title: t`Aside: your own sheet over the page`,
  icon: () => NoteBlankIcon,
  key: 'a',
};
