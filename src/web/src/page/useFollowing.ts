import { type RefObject, useEffect, useRef, useSyncExternalStore } from 'react';
import { useFollowed } from '../data/useWhereabouts';
import { useWorkspace } from '../data/useWorkspace';
import type { Blotter } from '../sheet/blotter/blotter';
import { asSeen, type View } from '../sheet/ink/view';

/**
 * Shows what whom one follows sees, until one touches the sheet or goes elsewhere oneself; and says what is seen here to who follows.
 * @param active Whether this is the sheet that the person looks at, of two.
 * @param writes Whether one goes on following while one writes, as in a lesson.
 */
export function useFollowing(
  holder: RefObject<HTMLDivElement | null>,
  blotter: Blotter | undefined,
  view: View,
  page: string,
  active: boolean,
  onPage: (page: string) => void,
  writes: boolean,
): void {
  const { whereabouts } = useWorkspace();
  const { leader, followedBy } = useFollowed();
  const seen = useSyncExternalStore(whereabouts.subscribe, whereabouts.leaderSees);
  const follows = active && leader !== undefined;
  const latest = useRef(onPage);
  latest.current = onPage;

  // Who begins to follow is told at once, and then of every change.
  useEffect(() => {
    if (!active || !blotter || view.scale === 0 || !holder.current) return;
    const { x, y } = blotter.view.middle;
    whereabouts.show({ page, x, y, width: holder.current.clientWidth / view.scale });
  }, [whereabouts, holder, blotter, view, page, active, followedBy]);

  useEffect(() => {
    if (!follows || !seen || !holder.current) return;
    if (seen.page !== page) {
      // Who was there with the other, and is elsewhere, went by themselves.
      if (whereabouts.arrivedAt === seen.page) whereabouts.unfollow();
      else latest.current(seen.page);
      return;
    }
    whereabouts.arrivedAt = page;
    // A stroke is not carried away under the pen.
    if (!blotter || blotter.isAtWork) return;
    const { clientWidth, clientHeight } = holder.current;
    blotter.view.look(asSeen(seen, clientWidth, clientHeight));
  }, [whereabouts, holder, blotter, follows, seen, page]);

  useEffect(() => {
    const element = holder.current;
    if (!follows || !element) return undefined;
    const stop = (event: Event) => {
      if (writes && event instanceof PointerEvent && event.pointerType !== 'touch') return;
      whereabouts.unfollow();
    };
    element.addEventListener('pointerdown', stop, true);
    element.addEventListener('wheel', stop, { capture: true, passive: true });
    return () => {
      element.removeEventListener('pointerdown', stop, true);
      element.removeEventListener('wheel', stop, true);
    };
  }, [whereabouts, holder, follows, writes]);
}
