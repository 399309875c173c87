import { aside } from './aside';
import { find } from './find';
import { guide } from './guide';
import { habits } from './habits';
import { handTools } from './handTools';
import { layers } from './layers';
import { loupe } from './loupe';
import { pen } from './pen';
import { put } from './put';
import { retrace } from './retrace';
import type { Offer, Tool, Tools } from '../hand/tool';

function offerOf(tool: Tool): Offer {
  return {
    name: tool.name,
    words: (tools) => tool.words(tools.settingsOf(tool)),
    title: tool.title ?? tool.words(tool.first),
    icon: (tools) => tool.icon(tools.settingsOf(tool)),
    ...(tool.key ? { key: tool.key } : {}),
    isOn: (tools) => tools.held === tool.name,
    press: (tools) => tools.pressTool(tool),
    byKey: (tools) => tools.toggle(tool.name),
    ...(tool.Panel ? { Panel: tool.Panel } : {}),
  };
}

/** All that the tray can hold beside the pens, and the panel of all tools shows. */
export const offers: readonly Offer[] = [
  ...handTools.filter((tool) => tool !== pen).map(offerOf),
  put,
  find,
  guide,
  layers,
  loupe,
  retrace,
  aside,
  habits,
];

/** What stands in the tray until the person chooses. */
export const usualOffers: readonly string[] = ['eraser', 'loop', 'text', 'put', 'shape', 'room', 'mark', 'layers'];
/** So many the tray holds beside the pens. */
export const mostOffers = 8;

/** The offers that stand in the tray, in the person's order. */
export function trayOffers(tools: Tools): Offer[] {
  const names = tools.habits.inTray ?? usualOffers;
  return names.flatMap((name) => offers.find((offer) => offer.name === name) ?? []).slice(0, mostOffers);
}
