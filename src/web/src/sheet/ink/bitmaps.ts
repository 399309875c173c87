import type { FileLook } from '../../core/assetBridge';
import { loadedCore } from '../../core/runtime';
import { toned } from './tones';

/** How a picture is wanted. */
interface Look {
  asset: string;
  slope: number;
  added: number;
}

interface Made {
  bitmap: ImageBitmap;
  /** Dots along its longer side. */
  side: number;
  usedAt: number;
}

/** What is known of a file. */
interface Known {
  file?: Blob;
  /** The file while it is awaited. */
  bringing?: Promise<Blob> | undefined;
  /** Dots along its longer side, once it was read whole. */
  natural: number;
  /** By their look and size. */
  made: Map<string, Made>;
  coming: Set<string>;
  /** It cannot be read. */
  isBroken: boolean;
}

/** Where files are had from: of a space that a page lies open of. */
type Source = (asset: string, signal: AbortSignal) => Promise<Blob>;

/** Pictures are read in so many dots along their longer side: the least of these that is enough. */
const sides = [256, 512, 1024, 2048, 4096];
/** So many dots of pictures are held at once: as much as 180 MB. */
const mostDots = 45_000_000;

const known = new Map<string, Known>();
const sources = new Map<Source, AbortController>();
const listeners = new Set<(asset: string) => void>();
let turn = Promise.resolve();
let clock = 0;

/** Says where files are had from, until that is taken back. */
export function offerFiles(source: Source): () => void {
  const ended = new AbortController();
  sources.set(source, ended);
  return () => {
    ended.abort();
    sources.delete(source);
  };
}

/** Whoever shows pictures is told whenever one is there, or in more dots than before. */
export function onPictures(listener: (asset: string) => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** A picture to be drawn so many dots long now: as good as it is there; undefined where it is not. What is better is brought. */
export function pictureFor(look: Look, dots: number): ImageBitmap | undefined {
  const entry = entryOf(look.asset);
  const side = sideFor(entry, dots);
  const right = entry.made.get(keyOf(look, side));
  if (right) {
    right.usedAt = ++clock;
    return right.bitmap;
  }
  want(entry, look, side);
  let best: Made | undefined;
  for (const [key, made] of entry.made) if (key.endsWith(toneOf(look)) && (!best || made.side > best.side)) best = made;
  return best?.bitmap;
}

function entryOf(asset: string): Known {
  let entry = known.get(asset);
  if (!entry) known.set(asset, (entry = { natural: 0, made: new Map(), coming: new Set(), isBroken: false }));
  return entry;
}

function sideFor({ natural }: Known, dots: number): number {
  const side = sides.find((one) => one >= dots) ?? sides.at(-1)!;
  return natural > 0 ? Math.min(side, natural) : side;
}

const toneOf = ({ slope, added }: Look): string => ` ${slope} ${added}`;
const keyOf = (look: Look, side: number): string => `${side}${toneOf(look)}`;

function want(entry: Known, look: Look, side: number): void {
  const key = keyOf(look, side);
  if (entry.isBroken || sources.size === 0 || entry.coming.has(key)) return;
  entry.coming.add(key);
  void fileOf(entry, look.asset)
    // One after the other: each takes much room while it is read. What has not come is awaited before.
    .then((file) => (turn = turn.catch(() => {}).then(() => make(entry, file, look, side))))
    .then(() => {
      for (const listener of listeners) listener(look.asset);
    })
    .catch(() => {})
    .finally(() => entry.coming.delete(key));
}

async function make(entry: Known, file: Blob, look: Look, side: number): Promise<void> {
  if (entry.made.has(keyOf(look, side)) || entry.isBroken) return;
  let bitmap: ImageBitmap;
  try {
    bitmap = await read(entry, file, side);
  } catch {
    entry.isBroken = true;
    return;
  }
  if (look.slope !== 1 || look.added !== 0) bitmap = await toned(bitmap, look.slope, look.added);
  const long = Math.max(bitmap.width, bitmap.height);
  entry.made.set(keyOf(look, long), { bitmap, side: long, usedAt: ++clock });
  dropOldest();
}

/** A picture's file; it is looked for once, in however many looks it is wanted. */
async function fileOf(entry: Known, asset: string): Promise<Blob> {
  if (entry.file) return entry.file;
  entry.bringing ??= bring(asset).finally(() => (entry.bringing = undefined));
  return (entry.file = await entry.bringing);
}

/** The first of the open pages' spaces that has it. */
async function bring(asset: string): Promise<Blob> {
  return Promise.any([...sources].map(([source, { signal }]) => source(asset, signal)));
}

async function read(entry: Known, file: Blob, side: number): Promise<ImageBitmap> {
  const { width, height } = await sizeOf(file);
  entry.natural = Math.max(width, height);
  return scaled(file, width, height, Math.min(side, entry.natural));
}

function scaled(file: Blob, width: number, height: number, side: number): Promise<ImageBitmap> {
  if (Math.max(width, height) <= side) return createImageBitmap(file);
  const share = side / Math.max(width, height);
  return createImageBitmap(file, {
    resizeWidth: Math.max(1, Math.round(width * share)),
    resizeHeight: Math.max(1, Math.round(height * share)),
    resizeQuality: 'high',
  });
}

/** A picture says at its beginning how many dots it has. */
const head = 256 * 1024;
const measures = new WeakMap<Blob, { width: number; height: number }>();

/** How many dots a file has; it is not unfolded for that unless its beginning does not say it. */
async function sizeOf(file: Blob): Promise<{ width: number; height: number }> {
  const found = measures.get(file);
  if (found) return found;
  const begin = new Uint8Array(await file.slice(0, head).arrayBuffer());
  const { width, height } = JSON.parse(loadedCore()?.AssetBridge.Look(begin) ?? '{"width":0}') as FileLook;
  const size = width > 0 ? { width, height } : await unfoldedSize(file);
  measures.set(file, size);
  return size;
}

async function unfoldedSize(file: Blob): Promise<{ width: number; height: number }> {
  const bitmap = await createImageBitmap(file);
  const { width, height } = bitmap;
  bitmap.close();
  return { width, height };
}

function dropOldest(): void {
  const all = [...known.values()].flatMap(({ made }) => [...made].map(([key, one]) => ({ made, key, one })));
  let dots = all.reduce((sum, { one }) => sum + one.bitmap.width * one.bitmap.height, 0);
  for (const { made, key, one } of all.sort((a, b) => a.one.usedAt - b.one.usedAt)) {
    if (dots <= mostDots || one.usedAt === clock) return;
    dots -= one.bitmap.width * one.bitmap.height;
    made.delete(key);
    one.bitmap.close();
  }
}
