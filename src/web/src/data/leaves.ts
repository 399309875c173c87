import { useEffect, useMemo, useState } from 'react';
import type { ShownLeaf } from '../core/thingBridge';
import type { Area } from '../model/drawing';
import { linksOf, wordsOf } from '../printed/leaves';
import type { OpenDocument } from '../sync/openDocument';
import type { Workspace } from '../sync/workspace';
import { boxOf } from './seen';
import { useWorkspace } from './useWorkspace';

/** A link that a page of a PDF file brought along, and where it lies on the page. */
export interface LeafLink {
  key: string;
  address: string;
  area: Area;
}

/** The links of the files that a page shows; none until the files are here. */
export function useLeafLinks(page: OpenDocument, isOn: boolean): readonly LeafLink[] {
  return useOfLeaves(page, isOn, linksOn);
}

/** The words that are printed on a page: of each the ends of its baseline and the height of its type, 0.01 mm. */
export function usePrintedWords(page: OpenDocument, isOn: boolean): readonly number[] {
  return useOfLeaves(page, isOn, wordsOn);
}

/** What is in the pages of files that a page shows, of all of them, anew when they are others. */
function useOfLeaves<T>(
  page: OpenDocument,
  isOn: boolean,
  read: (leaf: ShownLeaf, file: Blob, nth: number) => Promise<T[]>,
): readonly T[] {
  const { core, assets } = useWorkspace();
  const version = page.getVersion();
  const shown = useMemo(
    () => (isOn && !page.isHeld ? core.ThingBridge.Leaves(page.handle) : '[]'),
    [core, page, version, isOn],
  );
  const [found, setFound] = useState<readonly T[]>(none);
  useEffect(() => {
    if (shown === '[]') return undefined;
    const ended = new AbortController();
    void readAll(assets, page.space, JSON.parse(shown) as ShownLeaf[], read, ended.signal).then(
      (all) => ended.signal.aborted || setFound(all),
      // Of a file that cannot be read there is nothing.
      () => {},
    );
    return () => {
      ended.abort();
      setFound(none);
    };
  }, [assets, page, shown, read]);
  return found;
}

const none: readonly never[] = [];

async function readAll<T>(
  assets: Workspace['assets'],
  space: string,
  leaves: ShownLeaf[],
  read: (leaf: ShownLeaf, file: Blob, nth: number) => Promise<T[]>,
  signal: AbortSignal,
): Promise<T[]> {
  const all = leaves.map(async (leaf, nth) => read(leaf, await assets.whenHere(space, leaf.asset, signal), nth));
  return (await Promise.all(all)).flat();
}

async function linksOn(leaf: ShownLeaf, file: Blob, nth: number): Promise<LeafLink[]> {
  const links = await linksOf(leaf.asset, file, leaf.leaf);
  return links.map(({ address, area: [left, top, right, bottom] }, i) => {
    const corners = [
      [left, top],
      [right, top],
      [left, bottom],
      [right, bottom],
    ].flatMap(([x, y]) => onPage(leaf, x!, y!));
    return { key: `${nth} ${i}`, address, area: boxOf(corners) };
  });
}

async function wordsOn(leaf: ShownLeaf, file: Blob): Promise<number[]> {
  const words = await wordsOf(leaf.asset, file, leaf.leaf);
  const [a, b, c, d] = leaf.place;
  const growth = Math.sqrt(Math.abs(a * d - b * c));
  return words.flatMap(({ from, to, height }) => [
    ...onPage(leaf, ...from),
    ...onPage(leaf, ...to),
    height * leaf.height * growth,
  ]);
}

/** Where a place of a leaf, in shares of it, lies on the page. */
function onPage({ width, height, place: [a, b, c, d, e, f] }: ShownLeaf, x: number, y: number): [number, number] {
  const [across, down] = [x * width, y * height];
  return [a * across + c * down + e, b * across + d * down + f];
}
