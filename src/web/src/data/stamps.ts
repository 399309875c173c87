import { t } from '@lingui/core/macro';
import { type Core, properties } from '../core/runtime';
import { useSession } from '../server/session';
import type { Workspace } from '../sync/workspace';
import type { Library } from './Library';
import { keepWhole } from './pictureFiles';
import { may, mayTouch } from './rights';
import { useLibraries } from './useLibrary';

/** A stamp that can be laid down: one that ships, one's own, or a group's. */
export interface StampOffer {
  /** Its own among all: the name of one that ships, or the space and id of another. */
  key: string;
  name: string;
  category: string;
  /** The library in which it is kept, and its file there; none for one that ships. */
  kept?: { space: string; id: string; asset: string };
  /** Whether one may rename it and take it away. */
  isOpen: boolean;
}

/** A library in which stamps can be kept. */
export interface StampShelf {
  library: Library;
  name: string;
}

const shippedCategories: Record<string, string> = {
  arrows: t`Arrows`,
  brackets: t`Brackets`,
  ticks: t`Ticks`,
  frames: t`Frames`,
  weather: t`Weather`,
  faces: t`Faces`,
  clocks: t`Clock parts`,
};

const shippedNames: Record<string, string> = {
  'arrows/right': t`Arrow to the right`,
  'arrows/down': t`Arrow down`,
  'arrows/both': t`Arrow both ways`,
  'arrows/back': t`Arrow back`,
  'arrows/round': t`Arrow round`,
  'brackets/left': t`Bracket before`,
  'brackets/right': t`Bracket behind`,
  'brackets/under': t`Bracket under`,
  'ticks/done': t`Tick`,
  'ticks/wrong': t`Cross`,
  'ticks/ask': t`Question mark`,
  'ticks/heed': t`Exclamation mark`,
  'ticks/box': t`Box to tick`,
  'ticks/star': t({ message: 'Star', context: 'a shape' }),
  'frames/box': t`Frame`,
  'frames/double': t`Double frame`,
  'frames/round': t`Round frame`,
  'frames/speech': t`Speech bubble`,
  'weather/sun': t`Sun`,
  'weather/cloud': t`Cloud`,
  'weather/rain': t`Rain`,
  'weather/snow': t`Snow`,
  'weather/lightning': t`Lightning`,
  'faces/glad': t`Glad`,
  'faces/so so': t`So so`,
  'faces/sorry': t`Sorry`,
  'faces/surprised': t`Surprised`,
  'clocks/dial': t`Dial`,
  'clocks/wheel': t`Wheel`,
  'clocks/pinion': t`Pinion`,
  'clocks/escape wheel': t`Escape wheel`,
  'clocks/anchor': t`Anchor`,
  'clocks/pendulum': t`Pendulum`,
  'clocks/spring': t`Spring`,
};

const shippedKey = (name: string) => `shipped ${name}`;

/** All stamps there are for one: one's own, the groups', and those that ship; and where new ones can be kept. */
export function useStamps(core: Core): { stamps: StampOffer[]; shelves: StampShelf[] } {
  const { spaces, person } = useSession();
  const libraries = useLibraries();
  const shelves: StampShelf[] = [];
  const stamps: StampOffer[] = [];
  for (const space of [...spaces].sort((a, b) => Number(b.personal) - Number(a.personal))) {
    const library = libraries.get(space.id);
    if (!library) continue;
    if (may(space, 'Write')) shelves.push({ library, name: space.personal ? t`My stamps` : space.name });
    for (const node of library.nodes.values()) {
      if (node.kind !== 'stamp' || node.inBin || !node.source) continue;
      stamps.push({
        key: `${space.id} ${node.id}`,
        name: node.name,
        category: node.category || (space.personal ? t`My stamps` : space.name),
        kept: { space: space.id, id: node.id, asset: node.source },
        isOpen: mayTouch(space, node.createdBy === person.id),
      });
    }
  }
  return { stamps: [...stamps, ...shippedOf(core)], shelves };
}

let shipped: StampOffer[] | undefined;

/** Those that ship; they stay the same. */
const shippedOf = (core: Core): StampOffer[] =>
  (shipped ??= core.StampBridge.Shipped().map((name) => ({
    key: shippedKey(name),
    name: shippedNames[name] ?? name,
    category: shippedCategories[name.split('/')[0]!] ?? '',
    isOpen: false,
  })));

/** A stamp as it is laid down, and the space in which what it shows is kept. */
export interface StampPiece {
  bytes: Uint8Array;
  space: string;
}

const pieces = new Map<string, StampPiece>();

/** The piece of a stamp, where it was brought before. */
export const broughtStamp = (key: string): StampPiece | undefined => pieces.get(key);

/** Brings the piece of a stamp; undefined while its file is not here. Throws a sentence where that is none. */
export async function bringStamp({ core, assets }: Workspace, stamp: StampOffer): Promise<StampPiece | undefined> {
  const name = stamp.kept ? `${stamp.kept.space} ${stamp.kept.asset}` : stamp.key;
  const known = pieces.get(name);
  if (known) pieces.set(stamp.key, known);
  if (known) return known;
  let bytes: Uint8Array;
  if (stamp.kept) {
    const file = await assets.file(stamp.kept.space, stamp.kept.asset);
    if (!file) return undefined;
    bytes = core.StampBridge.Read(new Uint8Array(await file.arrayBuffer())).slice();
    if (bytes.length === 0) throw new Error(t`This stamp cannot be read.`);
  } else bytes = core.StampBridge.ShippedPiece(stamp.key.slice(shippedKey('').length)).slice();
  const piece = { bytes, space: stamp.kept?.space ?? '' };
  pieces.set(name, piece);
  pieces.set(stamp.key, piece);
  return piece;
}

/** Keeps a stamp's file in a library, under a name and a category. */
export async function keepStamp(
  { assets, core }: Workspace,
  shelf: Library,
  file: Uint8Array,
  from: string,
  name: string,
  category: string,
): Promise<void> {
  const bytes = file.slice();
  // What it shows is kept with it.
  await assets.carry(core.ThingBridge.AssetsOf(core.StampBridge.Read(bytes)), from, shelf.space);
  const { asset } = await assets.keep(shelf.space, new Blob([bytes]));
  shelf.newNode('stamp', name, { [properties.source]: asset, [properties.category]: category.trim() });
}

/** Makes a stamp of a picture. Throws a sentence where it is none. */
export async function keepPictureStamp(workspace: Workspace, shelf: Library, picture: File): Promise<void> {
  const { asset, width, height } = await keepWhole(workspace, shelf.space, picture);
  const file = workspace.core.StampBridge.OfPicture(asset, width, height);
  const name = picture.name.replace(/\.[^.]+$/, '').slice(0, 60);
  await keepStamp(workspace, shelf, file, shelf.space, name || t`Picture`, '');
}

const usesKey = 'quill.stamps';

/** How often each stamp was used on this device. */
export function stampUses(): Record<string, number> {
  return JSON.parse(localStorage.getItem(usesKey) ?? '{}') as Record<string, number>;
}

export function countStamp(key: string): void {
  const uses = stampUses();
  localStorage.setItem(usesKey, JSON.stringify({ ...uses, [key]: (uses[key] ?? 0) + 1 }));
}
