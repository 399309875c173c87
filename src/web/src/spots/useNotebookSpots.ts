import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import type { NotebookEntry } from '../library/model';
import { useSyncState } from '../sync/syncState';
import { useDocument, useWorkspace } from '../sync/workspace';
import { kindOfNumber, type ShownSpot, type Spot } from './spots';
import type { OpenDocument } from '../sync/openDocument';

/** A spot as the margin, the thread and the overview show it, with the page it is on. */
export interface PlacedSpot extends Spot {
  page: string;
}

/** The spots of pages of which something waits to be sent, from the device itself: what the server does not know yet. */
export function useUnsentSpots(space: string): Map<string, Spot[]> {
  const workspace = useWorkspace();
  const { waiting } = useSyncState();
  const [found, setFound] = useState<Map<string, Spot[]>>(nothing);
  useEffect(() => {
    let ended = false;
    if (waiting === 0) return setFound(nothing);
    void (async () => {
      const pages = new Set((await workspace.store.outbox()).filter((row) => row.kind === 'page' && row.space === space).map((row) => row.document));
      const spots = new Map<string, Spot[]>();
      for (const page of pages) {
        const document = await workspace.acquire(space, 'page', page);
        spots.set(page, JSON.parse(workspace.core.SpotBridge.Spots(document.handle)) as Spot[]);
        workspace.release(page);
      }
      if (!ended) setFound(spots);
    })();
    return () => {
      ended = true;
    };
  }, [workspace, space, waiting]);
  return found;
}

const nothing = new Map<string, Spot[]>();

/** All marks, links and headings of a notebook in reading order; those of the open page as they are at this moment. */
export function useNotebookSpots(space: string, notebook: string, pages: NotebookEntry[], here: string): PlacedSpot[] {
  const workspace = useWorkspace();
  const document = useDocument(space, 'page', here);
  const unsent = useUnsentSpots(space);
  const { data } = useQuery({ queryKey: ['spots', notebook], queryFn: () => workspace.list<ShownSpot[]>(`/api/spaces/${space}/notebooks/${notebook}/spots`), refetchInterval: 15_000, refetchOnMount: 'always' });
  const own = useOwnSpots(document);
  return useMemo(() => {
    const byPage = new Map<string, PlacedSpot[]>();
    for (const shown of data ?? []) byPage.set(shown.page, [...(byPage.get(shown.page) ?? []), ofShown(shown)]);
    for (const [page, spots] of unsent) byPage.set(page, spots.map((spot) => ({ ...spot, page })));
    if (own) byPage.set(here, own.map((spot) => ({ ...spot, page: here })));
    return pages.flatMap((page) => (byPage.get(page.id) ?? []).sort((a, b) => a.area[1] - b.area[1] || a.area[0] - b.area[0]));
  }, [data, unsent, own, here, pages]);
}

function useOwnSpots(document: OpenDocument | undefined): Spot[] | undefined {
  const { core } = useWorkspace();
  const version = document?.getVersion();
  return useMemo(() => (document && !document.isHeld ? (JSON.parse(core.SpotBridge.Spots(document.handle)) as Spot[]) : undefined), [core, document, version]);
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
    ...(shown.doneAt ? { doneAt: shown.doneAt, doneBy: shown.doneBy ?? '' } : {}),
    page: shown.page,
  };
}

