import { curtain } from './curtain';
import { eraser } from './eraser';
import { fill } from './fill';
import { loop } from './loop';
import { mark } from './mark';
import { pen } from './pen';
import { pick } from './pick';
import { room } from './room';
import { shape } from './shape';
import { slip } from './slip';
import { stamp } from './stamp';
import { table } from './table';
import { text } from './text';
import type { Tool } from '../hand/tool';

/** All tools that are taken into the hand. A new one is a file beside these, and a name here. */
export const handTools: readonly Tool[] = [
  pen,
  eraser,
  loop,
  text,
  shape,
  slip,
  stamp,
  table,
  fill,
  room,
  mark,
  curtain,
  pick,
];

export function handToolOf(name: string): Tool {
  return handTools.find((tool) => tool.name === name) ?? pen;
}
