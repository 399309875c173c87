import type { FileLook } from '../../core/assetBridge';
import { loadedCore } from '../../core/runtime';
import { drawLeaf, sizeOfLeaf } from '../../printed/leaves';
import { Unreachable } from '../../server/api';
import { toned } from './tones';

/** How a picture is wanted. */
interface Look {
  asset: string;
  /** Which page of a PDF file; 0 for a picture. */
  leaf: number;
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
  /** Parts of a page of a PDF file that is drawn larger than a picture can be held, by size and place. */
  parts: Map<string, Made>;
  coming: Set<string>;
  /** It cannot be read. */
  isBroken: boolean;
  /** How a page of a PDF file is proportioned, once it was drawn. */
  shape?: { width: number; height: number };
}

/** Where files are had from: of a space that a page lies open of. */
type Source = (asset: string, signal: AbortSignal) => Promise<Blob>;

/** Pictures are read in so many dots along their longer side: the least of these that is enough. */
const sides = [256, 512, 1024, 2048, 4096];
/** A page of a PDF file that is seen in more dots is drawn in parts of so many, as far as they are in sight. */
const partSide = 2048;
const mostSide = 65_536;
/** So many parts of one page are drawn at most. */
const mostParts = 8;
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
  const entry = entryOf(look);
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

/** A part of a picture, as shares of its width and height. */
interface Share {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** What of a page of a PDF file is drawn sharper than it can be held whole, of what is in sight now. What is not there is brought. */
export function partsFor(look: Look, dots: number, sight: Share): { bitmap: ImageBitmap; at: Share }[] {
  if (look.leaf === 0 || dots <= sides.at(-1)!) return [];
  const entry = entryOf(look);
  if (!entry.shape) return [];
  const longer = Math.max(entry.shape.width, entry.shape.height);
  const [across, down] = [entry.shape.width / longer, entry.shape.height / longer];
  const partsAt = (side: number) =>
    (Math.ceil((sight.width * across * side) / partSide) + 1) *
    (Math.ceil((sight.height * down * side) / partSide) + 1);
  let side = sides.at(-1)!;
  // Never so sharp that what is in sight would push itself out of what is held.
  while (side < dots && side < mostSide && partsAt(side * 2) <= mostParts) side *= 2;
  if (side === sides.at(-1)) return [];
  const [wide, high] = [across * side, down * side];
  const parts: { bitmap: ImageBitmap; at: Share }[] = [];
  const first = (share: number, whole: number) => Math.max(0, Math.floor((share * whole) / partSide));
  const end = (share: number, whole: number) =>
    Math.min(Math.ceil((share * whole) / partSide), Math.ceil(whole / partSide));
  for (let row = first(sight.top, high); row < end(sight.top + sight.height, high); row++)
    for (let column = first(sight.left, wide); column < end(sight.left + sight.width, wide); column++) {
      const key = `${side} ${column} ${row}`;
      const [left, top] = [column * partSide, row * partSide];
      const part = { left, top, width: Math.min(partSide, wide - left), height: Math.min(partSide, high - top) };
      const there = entry.parts.get(key);
      if (!there) bringPart(entry, look, key, side, part);
      else {
        there.usedAt = ++clock;
        const at = { left: left / wide, top: top / high, width: part.width / wide, height: part.height / high };
        parts.push({ bitmap: there.bitmap, at });
      }
    }
  return parts;
}

function bringPart(entry: Known, look: Look, key: string, side: number, part: Share): void {
  bringOnce(entry, look, key, async (file) => {
    if (entry.parts.has(key)) return;
    const bitmap = await drawLeaf(look.asset, file, look.leaf, side, part);
    entry.parts.set(key, { bitmap, side, usedAt: ++clock });
    dropOldest();
  });
}

function entryOf({ asset, leaf }: Look): Known {
  const name = leaf > 0 ? `${asset} ${leaf}` : asset;
  let entry = known.get(name);
  if (!entry)
    known.set(name, (entry = { natural: 0, made: new Map(), parts: new Map(), coming: new Set(), isBroken: false }));
  return entry;
}

function sideFor({ natural }: Known, dots: number): number {
  const side = sides.find((one) => one >= dots) ?? sides.at(-1)!;
  return natural > 0 ? Math.min(side, natural) : side;
}

const toneOf = ({ slope, added }: Look): string => ` ${slope} ${added}`;
const keyOf = (look: Look, side: number): string => `${side}${toneOf(look)}`;

function want(entry: Known, look: Look, side: number): void {
  bringOnce(entry, look, keyOf(look, side), (file) => make(entry, file, look, side));
}

/** Makes something of a file, unless that is on its way; then all who show it are told. */
function bringOnce(entry: Known, look: Look, key: string, work: (file: Blob) => Promise<void>): void {
  if (entry.isBroken || sources.size === 0 || entry.coming.has(key)) return;
  entry.coming.add(key);
  void fileOf(entry, look.asset)
    // One after the other: each takes much room while it is read. What has not come is awaited before.
    .then((file) => (turn = turn.catch(() => {}).then(() => work(file))))
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
    bitmap = await read(entry, file, side, look);
  } catch (problem) {
    entry.isBroken = !(problem instanceof Unreachable);
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

async function read(entry: Known, file: Blob, side: number, { asset, leaf }: Look): Promise<ImageBitmap> {
  if (leaf > 0) {
    entry.shape ??= await sizeOfLeaf(asset, file, leaf);
    return drawLeaf(asset, file, leaf, side);
  }
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
  const all = [...known.values()].flatMap((entry) =>
    [entry.made, entry.parts].flatMap((made) => [...made].map(([key, one]) => ({ made, key, one }))),
  );
  let dots = all.reduce((sum, { one }) => sum + one.bitmap.width * one.bitmap.height, 0);
  for (const { made, key, one } of all.sort((a, b) => a.one.usedAt - b.one.usedAt)) {
    if (dots <= mostDots || one.usedAt === clock) return;
    dots -= one.bitmap.width * one.bitmap.height;
    made.delete(key);
    one.bitmap.close();
  }
}
