import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import type { NotebookEntry } from '../model/items';
import { useSyncState } from '../sync/syncState';
import { withoutNews } from './useNews';
import { useDocument, useWorkspace } from './useWorkspace';
import { idOf } from '../sync/address';
import { kindOfNumber, type ShownSpot, type Spot, useSpots } from './spots';

/** A spot as the margin, the thread and the overview show it, with the page it is on. */
export interface PlacedSpot extends Spot {
  page: string;
}

/**
 * The spots of pages of which something waits to be sent, from the device itself: what the server does not know yet. They stand in for its
 * answer until there is one from after it was told.
 * @param answeredAt When the server's answer came, UTC ms.
 */
export function useUnsentSpots(answeredAt: number): Map<string, Spot[]> {
  const workspace = useWorkspace();
  const { waiting } = useSyncState();
  const [found, setFound] = useState<Map<string, Spot[]>>(nothing);
  const [savedAt, setSavedAt] = useState(0);
  useEffect(() => {
    if (waiting === 0) return setSavedAt(Date.now());
    void (async () => {
      const pages = new Map(
        (await workspace.store.outbox())
          .filter((row) => row.kind === 'page')
          .map((row) => [idOf(row.document), row.space]),
      );
      for (const [page, space] of pages) {
        const document = await workspace.acquire(space, 'page', page);
        const spots = JSON.parse(workspace.core.SpotBridge.Spots(document.handle)) as Spot[];
        workspace.release(space, 'page', page);
        // What was found before stays: it may have been sent in the meantime.
        setFound((before) => new Map(before).set(page, spots));
      }
    })();
  }, [workspace, waiting]);
  const isKnown = waiting === 0 && answeredAt > savedAt;
  useEffect(() => {
    if (isKnown) setFound(nothing);
  }, [isKnown]);
  return isKnown ? nothing : found;
}

const nothing = new Map<string, Spot[]>();

/** All marks, links and headings of a notebook in reading order; those of the open page as they are at this moment. */
export function useNotebookSpots(space: string, notebook: string, pages: NotebookEntry[], here: string): PlacedSpot[] {
  const workspace = useWorkspace();
  const document = useDocument(space, 'page', here);
  const { data, dataUpdatedAt } = useQuery({
    queryKey: ['spots', notebook],
    queryFn: () => workspace.list<ShownSpot[]>(`/api/spaces/${space}/notebooks/${notebook}/spots`),
    refetchInterval: withoutNews,
    refetchOnMount: 'always',
  });
  const unsent = useUnsentSpots(dataUpdatedAt);
  const own = useSpots(document);
  return useMemo(() => {
    const byPage = new Map<string, PlacedSpot[]>();
    for (const shown of data ?? []) byPage.set(shown.page, [...(byPage.get(shown.page) ?? []), ofShown(shown)]);
    for (const [page, spots] of unsent)
      byPage.set(
        page,
        spots.map((spot) => ({ ...spot, page })),
      );
    if (own)
      byPage.set(
        here,
        own.map((spot) => ({ ...spot, page: here })),
      );
    return pages.flatMap((page) =>
      (byPage.get(page.id) ?? []).sort((a, b) => a.area[1] - b.area[1] || a.area[0] - b.area[0]),
    );
  }, [data, unsent, own, here, pages]);
}

export function ofShown(shown: ShownSpot): PlacedSpot {
  return {
    id: shown.id,
    kind: kindOfNumber[shown.kind]!,
    area: shown.area,
    items: [],
    mark: shown.mark,
    note: shown.note,
    due: shown.due,
    ...(shown.person ? { person: shown.person } : {}),
    target: shown.target,
    title: shown.title,
    level: String(shown.level),
    createdAt: shown.createdAt,
    author: shown.author,
    open: shown.isOpen,
    answered: shown.isAnswered,
    answers: [],
    ...(shown.doneAt ? { doneAt: shown.doneAt, doneBy: shown.doneBy ?? '' } : {}),
    page: shown.page,
  };
}
