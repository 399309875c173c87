import { t } from '@lingui/core/macro';
import { EyedropperIcon } from '@phosphor-icons/react';
import { PressHand } from '../hand/pressHand';
import type { Tool } from '../hand/tool';

/** Taking a colour from the page for the pen. */
export const pick: Tool = {
  name: 'pick',
  words: () => t`Pick`,
  title: t`Pick a colour`,
  icon: () => EyedropperIcon,
  key: 'i',
  first: {},
  hint: t`Press on ink to take its colour.`,
  hold: () => ({
    name: 'pick',
    takeUp: ({ dry, events }) => new PressHand((x, y) => events().picked(dry.colourAt(x, y))),
  }),
};
