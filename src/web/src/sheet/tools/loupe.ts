import { MagnifyingGlassPlusIcon } from '@phosphor-icons/react';
import type { Offer } from './tools';

/** The close-up strip at the foot. */
export const loupe: Offer = {
  name: 'loupe',
  words: () => 'Loupe',
  title: 'Loupe',
  icon: () => MagnifyingGlassPlusIcon,
  key: 'o',
  isOn: (tools) => tools.isOn('loupe'),
  press: (tools) => tools.turn('loupe', !tools.isOn('loupe')),
};
