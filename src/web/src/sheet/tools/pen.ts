import { t } from '@lingui/core/macro';
import { PenNibIcon } from '@phosphor-icons/react';
import { PenHand } from '../hand/penHand';
import { PenSettings } from './PenSettings';
import type { Tool } from '../hand/tool';

/** Writing with one of the tray's pens. */
export const pen: Tool = {
  name: 'pen',
  words: () => t`Pen`,
  icon: () => PenNibIcon,
  first: {},
  Panel: PenSettings,
  hold: (_, held) => ({
    name: 'pen',
    leavesInk: true,
    keepsToGuide: true,
    nib: { width: held.width, colour: held.colour },
    takeUp: (at) => new PenHand(at, held),
  }),
};
