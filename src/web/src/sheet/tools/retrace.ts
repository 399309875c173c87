import { FilmStripIcon } from '@phosphor-icons/react';
import type { Offer } from './tools';

/** Seeing the page written once more. */
export const retrace: Offer = {
  name: 'retrace',
  words: () => 'Retrace',
  title: 'Retrace',
  icon: () => FilmStripIcon,
  key: 'w',
  isOn: (tools) => tools.isOn('retrace'),
  press: (tools) => tools.turn('retrace', !tools.isOn('retrace')),
};
