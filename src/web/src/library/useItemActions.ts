import { may, mayShare, mayTouch } from '../data/rights';
import { t } from '@lingui/core/macro';
import { useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { properties, sentenceOf } from '../core/runtime';
import { finely } from '../model/fineness';
import { download } from '../data/download';
import { useSession } from '../server/session';
import { useWorkspace } from '../data/useWorkspace';
import { moveNodes } from '../moving/moveNodes';
import { doing, useAct } from '../data/doing';
import type { Item, Tag } from '../model/items';
import type { Library } from '../data/Library';
import { useLibraries } from '../data/useLibrary';
import { usePersonal } from '../data/usePersonal';
import { thingsWords } from '../data/items';
import { say } from '../ui/saying';

/** What can be done to things in a list, one or many at once. What may fail answers with a sentence, or with an empty text when it worked. */
export interface ItemActions {
  mayWrite: (item: Item) => boolean;
  mayShare: (item: Item) => boolean;
  /** Whether it may be put into the bin. */
  mayTakeAway: (item: Item) => boolean;
  isStarred: (item: Item) => boolean;
  library: (item: Item) => Library;
  rename: (item: Item, name: string) => Promise<string>;
  star: (items: Item[], on: boolean) => void;
  pin: (items: Item[], on: boolean) => void;
  toBin: (items: Item[]) => void;
  tag: (items: Item[], tag: string, on: boolean) => void;
  carried: (items: Item[]) => Tag[];
  /** Puts a thing behind another in its folder's own order; behind “first” at the head. */
  step: (item: Item, after: string) => void;
  /** Into a folder; across libraries, as a copy whose original goes into the bin. */
  move: (items: Item[], space: string, folder: string) => Promise<string>;
  duplicate: (items: Item[], signal: AbortSignal) => Promise<string>;
  /** Whether this device keeps a notebook for the road. */
  isForRoad: (item: Item) => boolean;
  keepForRoad: (item: Item, on: boolean) => void;
  /** Saves a notebook as a file. */
  takeOut: (item: Item) => void;
}

export function useItemActions(): ItemActions | undefined {
  const { spaces, person } = useSession();
  const workspace = useWorkspace();
  const libraries = useLibraries();
  const personal = usePersonal();
  const queries = useQueryClient();
  const act = useAct();
  return useMemo(() => {
    if (!libraries || !personal) return undefined;
    const { LibraryBridge } = workspace.core;
    const library = (item: Item) => libraries.get(item.space)!;
    /** Does something to a thing in the document that holds it. */
    const inDocument = async (item: Item, make: (handle: number, now: number) => Uint8Array) => {
      const isInner = item.kind === 'page' || item.kind === 'section';
      const document = await workspace.acquire(
        item.space,
        isInner ? 'notebook' : 'library',
        isInner ? item.notebook : item.space,
      );
      try {
        document.perform(make);
      } finally {
        workspace.release(document.space, document.kind, document.id);
      }
      if (isInner) void queries.invalidateQueries({ queryKey: ['entries'] });
    };
    const set = (item: Item, property: number, value: string) =>
      inDocument(item, (handle, now) => LibraryBridge.SetProperty(handle, item.id, property, value, now));
    const carried = (items: Item[]) => [
      ...new Set(
        items.flatMap((item) =>
          library(item).tagsOf(library(item).find(item.id)?.tags ?? item.tags.map((tag) => tag.id)),
        ),
      ),
    ];
    return {
      mayTakeAway: (item) =>
        mayTouch(
          spaces.find((one) => one.id === item.space),
          (item.node ?? library(item).find(item.id))?.createdBy === person.id,
        ),
      mayShare: (item) => {
        const space = spaces.find((one) => one.id === item.space);
        return space !== undefined && mayShare(space, item.node?.createdBy === person.id, item.kind === 'folder');
      },
      mayWrite: (item) =>
        may(
          spaces.find((space) => space.id === item.space),
          'Write',
        ),
      isStarred: (item) => personal.stars.has(item.id),
      library,
      rename: async (item, name) => {
        try {
          await doing(workspace, t`“${item.title}” is “${name.trim()}” now.`, () =>
            set(item, properties.name, name.trim()),
          );
          return '';
        } catch (problem) {
          return sentenceOf(problem);
        }
      },
      star: (items, on) => {
        for (const item of items) personal.star(item.id, on);
      },
      pin: (items, on) => {
        act(on ? t`Pinned to the top.` : t`Unpinned.`, () =>
          items.forEach((item) => library(item).set(item.id, properties.pinned, on ? '1' : '')),
        );
      },
      toBin: (items) =>
        act(t`Put ${wordsOf(items)} into the bin.`, () =>
          Promise.all(items.map((item) => set(item, properties.binned, String(Date.now())))),
        ),
      tag: (items, tag, on) => {
        const ids = on ? [tag] : (carried(items).find((one) => one.id === tag)?.ids ?? [tag]);
        act('', () =>
          Promise.all(
            items.flatMap((item) =>
              ids.map((id) => inDocument(item, (handle, now) => LibraryBridge.SetTag(handle, item.id, id, on, now))),
            ),
          ),
        );
      },
      carried,
      isForRoad: (item) => workspace.keeping.choice.road.includes(item.id),
      keepForRoad: (item, on) => {
        workspace.keeping.keepForRoad(item.id, on);
        say(
          on
            ? t`“${item.title}” is being brought onto this device.`
            : t`“${item.title}” is not kept for the road any more. What of it is here stays until room is made.`,
        );
      },
      step: (item, after) => act(t`Moved.`, () => library(item).move(item.id, item.folder, after)),
      move: async (items, space, folder) => {
        const words = wordsOf(items);
        for (const own of new Set(items.map((item) => item.space))) {
          const ids = items.filter((item) => item.space === own).map((item) => item.id);
          const refused = await moveNodes(workspace, libraries, { space: own, ids, words }, { space, folder });
          if (refused) return refused;
        }
        return '';
      },
      duplicate: async (items, signal) => {
        for (const item of items) {
          try {
            await library(item).duplicate(item.id, item.folder, signal);
          } catch (problem) {
            return sentenceOf(problem);
          }
        }
        return '';
      },
      takeOut: (item) =>
        void download(workspace, {
          path: finely(`/api/spaces/${item.space}/notebooks/${item.id}/export.pdf`),
          words: t`“${item.title}” as PDF`,
        }),
    };
  }, [libraries, personal, workspace, spaces, queries, act]);
}

const wordsOf = (items: Item[]) => (items.length === 1 ? t`“${items[0]!.title}”` : thingsWords(items.length));
