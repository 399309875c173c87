import { type Core, loadedCore } from '../core/runtime';
import { byName } from './byName';
import { addFont, loadShaping } from './shaping';

/** The shipped fonts by their names, but for the slices of the eastern ones. */
const files = byName(
  import.meta.glob<string>('../../../fonts/*.ttf', { query: '?url', import: 'default', eager: true }),
);

/** Those of which a text brings slices; what a browser would show of them it is given with them. */
const eastern = ['chinese', 'japanese', 'korean'];
const isEastern = (name: string): boolean => eastern.includes(name.split('-')[0]!);

const scripts = Object.keys(files).filter((name) => !/^(serif|sans|mono|round|hand)\b/.test(name));
const named = (name: string): string => `quill-${name.split('-')[0]}`;
let isOffered = false;

/** The families that the browser's own text takes to look like a text on a page: the one asked for, and behind it those that have what it has not. */
export function familyOf(family: string): string {
  if (!isOffered) offer();
  return [family, 'sans', 'serif', ...scripts, ...eastern].map((name) => `'${named(name)}'`).join(', ');
}

/** The browser fetches each of them when something is set in it first. */
function offer(): void {
  isOffered = true;
  for (const [name, address] of Object.entries(files))
    document.fonts.add(
      new FontFace(named(name), `url(${JSON.stringify(address)})`, {
        weight: name.includes('bold') ? '700' : '400',
        style: name.includes('italic') ? 'italic' : 'normal',
      }),
    );
}

const coming = new Set<string>();
const there = new Set<string>();
const listeners = new Set<() => void>();
let hasBegun = false;
let arrivals = 0;

/** Whoever shows texts is told whenever there are more fonts to show them in. */
export function onFonts(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Another number whenever there are more. */
export const fontsVersion = (): number => arrivals;

/** Brings the fonts that texts asked Core for. */
export function bringFonts(core: Core): void {
  const wanted = core.LetterBridge.Wanted().filter((name) => !coming.has(name) && !there.has(name));
  if (wanted.length === 0) return;
  for (const name of wanted) coming.add(name);
  void bring(core, wanted).finally(() => {
    for (const name of wanted) coming.delete(name);
  });
}

async function bring(core: Core, names: string[]): Promise<void> {
  const [bytes] = await Promise.all([Promise.all(names.map(fetchFont)), loadShaping()]);
  if (!hasBegun) core.LetterBridge.Begin();
  hasBegun = true;
  names.forEach((name, i) => {
    const file = bytes[i];
    if (!file) return;
    there.add(name);
    addFont(name, file);
    core.LetterBridge.Add(name, file);
    if (isEastern(name))
      document.fonts.add(new FontFace(named(name), file, { unicodeRange: core.LetterBridge.Range(name) }));
  });
  arrivals++;
  for (const listener of listeners) listener();
}

/** A font that cannot be had now is asked for again when a text needs it next. */
async function fetchFont(name: string): Promise<Uint8Array<ArrayBuffer> | undefined> {
  const address = isEastern(name) ? (await import('./easternFonts')).files[name] : files[name];
  if (!address) return undefined;
  const response = await fetch(address).catch(() => undefined);
  return response?.ok ? new Uint8Array(await response.arrayBuffer()) : undefined;
}

const outlines = new Map<string, Path2D>();
/** The names of fonts by their numbers, once Core has said them. */
let names: string[] | undefined;

/** The outline of a glyph in units of its font; undefined while the font is not there. */
export function glyphPath(font: number, glyph: number): Path2D | undefined {
  const key = `${font} ${glyph}`;
  const known = outlines.get(key);
  if (known) return known;
  const core = loadedCore();
  names ??= core?.LetterBridge.Names();
  if (!core || !there.has(names?.[font] ?? '')) return undefined;
  const path = new Path2D(core.LetterBridge.Outline(font, glyph));
  outlines.set(key, path);
  return path;
}
