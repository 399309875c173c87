import { t } from '@lingui/core/macro';
import { TextColumnsIcon } from '@phosphor-icons/react';
import { addSpot } from '../../data/spots';
import { BoxHand } from '../hand/boxHand';
import type { Tool } from '../hand/tool';

const clothColour = '#1f3d3a';

/** Hanging a cloth over what is to be hidden. */
export const curtain: Tool = {
  name: 'curtain',
  words: () => t`Curtain`,
  icon: () => TextColumnsIcon,
  key: 'c',
  first: {},
  hint: t`Drag a cloth over what is to be hidden.`,
  hold: () => ({
    name: 'curtain',
    takeUp: (at) => new BoxHand(at, clothColour, (area) => void addSpot(at.core, at.page, 'curtain', area, [], {})),
  }),
};
