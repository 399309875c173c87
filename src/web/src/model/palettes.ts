import { t } from '@lingui/core/macro';
/** Colours that belong together. */
export interface Palette {
  name: string;
  colours: string[];
}

export interface Palettes {
  own: Palette[];
  /** Colours used last, the newest first. */
  recent: string[];
}

/** Shipped palettes. The first two keep their colours apart for eyes that tell red and green badly: their lightness differs step by step. */
export const shipped: Palette[] = [
  { name: t`Workbench`, colours: ['#22302e', '#1f3d3a', '#b4533c', '#4f7388', '#6e4a63', '#c08a2e', '#7c8a4b'] },
  { name: t`Apart, dark to light`, colours: ['#1b2a49', '#3f5d8a', '#8a5a2b', '#c08a2e', '#e0c060', '#9fb8cc'] },
  { name: t`Apart, for maps`, colours: ['#22302e', '#2c5d9b', '#b36a00', '#7d7d7d', '#6fb1e0', '#f0c24b'] },
  { name: t`To mark with`, colours: ['#e3b23c', '#9cc25c', '#7fb8c9', '#e59b83', '#c5a3d1'] },
];

const mostRecent = 10;
export const mostOwn = 8;
export const mostInOne = 12;

export function readPalettes(text: string | undefined): Palettes {
  try {
    const kept = JSON.parse(text ?? '') as Palettes;
    if (Array.isArray(kept.own) && Array.isArray(kept.recent)) return kept;
  } catch {
    // Nothing kept yet.
  }
  return { own: [], recent: [] };
}

export function withRecent(palettes: Palettes, colour: string): Palettes {
  return { ...palettes, recent: [colour, ...palettes.recent.filter((one) => one !== colour)].slice(0, mostRecent) };
}

/** What was typed as a colour: #rgb or #rrggbb, with or without the sign; undefined where it is none. */
export function readHex(text: string): string | undefined {
  const digits = text.trim().replace(/^#/, '').toLowerCase();
  if (/^[0-9a-f]{6}$/.test(digits)) return `#${digits}`;
  if (/^[0-9a-f]{3}$/.test(digits)) return `#${[...digits].map((digit) => digit + digit).join('')}`;
  return undefined;
}
