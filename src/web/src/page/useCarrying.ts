import { t } from '@lingui/core/macro';
import { sentenceOf } from '../core/runtime';
import { rememberCarried } from '../data/carried';
import { useWorkspace } from '../data/useWorkspace';
import type { Taken } from '../sheet/hand/things';
import type { NextPage, NextPages } from '../sheet/ink/neighbours';
import { carry } from '../sheet/selection/clipboard';
import { framed } from '../sync/frames';
import { OpenDocument } from '../sync/openDocument';
import { say } from '../ui/saying';

/** Things that leave a sheet lie so far below the head of the next one, 0.01 mm. */
const carriedHead = 1_500;

/** Taking things from a page to the one after or before it. */
export function useCarrying(
  document: OpenDocument,
  next: NextPages,
  /** Makes a page after this one. */
  make: () => NextPage,
  /** They are on that page now. */
  arrive: (page: string) => void,
) {
  const { core } = useWorkspace();
  const { HandBridge, DocumentBridge } = core;

  /** Lays things of one page onto another, and has them leave the first, in one step: they are there before they leave. */
  const bring = (
    from: OpenDocument,
    onto: OpenDocument,
    items: string[],
    dy: number,
    leave: (handle: number, now: number) => Uint8Array,
  ) => {
    const all = HandBridge.BeginLay(onto.handle, HandBridge.Cut(from.handle, items), 0, dy, '');
    const [laid, left] = OpenDocument.performAcross([
      [onto, (handle, now) => HandBridge.LayMore(handle, all + 1, now)],
      [from, leave],
    ]);
    const idsOf = (batches: Uint8Array[]) => DocumentBridge.IdsOf(framed(batches));
    rememberCarried([
      { at: from.address, page: from.id, done: idsOf(left!) },
      { at: onto.address, page: onto.id, done: idsOf(laid!) },
    ]);
  };

  /**
   * In one step with whatever else is done here: they are there before they leave, and are shown there, selected where that is wished for.
   */
  const carryTo = async (
    target: NextPage,
    items: string[],
    dy: number,
    leave: (handle: number, now: number) => Uint8Array,
    select: boolean,
  ) => {
    const onto = await target.open();
    try {
      bring(document, onto, items, dy, leave);
      if (select) carry(target.id, HandBridge.LastLaid(onto.handle));
      arrive(target.id);
    } catch (error) {
      say(sentenceOf(error));
    } finally {
      target.close();
    }
  };

  return {
    /** Gives the page what lies on the person's own sheet over it: it lies there as it did here, and everybody sees it. */
    give: (from: OpenDocument, items: string[], done: () => void): void => {
      const open = HandBridge.OpenOf(from.handle, items);
      if (open.length === 0) return say(t`It is locked in its place.`);
      try {
        bring(from, document, open, 0, (handle, now) => HandBridge.RemoveFramed(handle, open, now));
        done();
        say(t`It lies on the page now, for everybody to see.`);
      } catch (error) {
        say(sentenceOf(error));
      }
    },

    /** What making room would push off the sheet. Without a page after this one it stays, where it can be come to, and one is offered. */
    carryOn: (items: string[], end: number, by: number): boolean => {
      const dy = -Math.round(end) + carriedHead;
      if (next.after) {
        void carryTo(
          next.after,
          items,
          dy + by,
          (handle, now) => HandBridge.EndRoomCarrying(handle, by, items, now),
          false,
        );
        return true;
      }
      say(t`It lies beyond the sheet now: there is no page after this one.`, {
        words: t`Make one, and take it there`,
        do: () => void carryTo(make(), items, dy, (handle, now) => HandBridge.RemoveFramed(handle, items, now), false),
      });
      return false;
    },

    /** What is held at the edge comes to lie at the head of the page after, and where it lay on the one before. */
    carryOver: (by: number, { items, area }: Taken): void => {
      const open = HandBridge.OpenOf(document.handle, items);
      const target = by > 0 ? next.after : next.before;
      if (open.length === 0) return say(t`It is locked in its place.`);
      if (!target) return say(by > 0 ? t`There is no page after this one.` : t`There is no page before this one.`);
      const dy = by > 0 ? -Math.round(area[1]) + carriedHead : 0;
      void carryTo(target, open, dy, (handle, now) => HandBridge.RemoveFramed(handle, open, now), true);
    },
  };
}
