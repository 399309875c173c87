import { TextColumnsIcon } from '@phosphor-icons/react';
import { addSpot } from '../../data/spots';
import { BoxHand } from '../hand/boxHand';
import type { Tool } from '../hand/tool';

const clothColour = '#1f3d3a';

/** Hanging a cloth over what is to be hidden. */
export const curtain: Tool = {
  name: 'curtain',
  words: () => 'Curtain',
  icon: () => TextColumnsIcon,
  key: 'c',
  first: {},
  hint: 'Drag a cloth over what is to be hidden.',
  hold: () => ({
    name: 'curtain',
    takeUp: (at) => new BoxHand(at, clothColour, (area) => void addSpot(at.core, at.page, 'curtain', area, [], {})),
  }),
};
