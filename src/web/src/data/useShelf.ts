import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo } from 'react';
import { getJson, Unreachable } from '../server/api';
import { useSession } from '../server/session';
import { withoutNews } from './useNews';
import { type Workspace } from '../sync/workspace';
import { useIsGuest } from './useShared';
import { useWorkspace } from './useWorkspace';
import type { ShownPage, Summary } from '../model/items';
import { keepTimes } from './writtenTimes';

interface SummaryAnswer {
  serverTime: number;
  /** Notebooks that are locked: nothing is told of their inside. */
  shut: string[];
  summaries: Summary[];
}

/** Answers that overlap by this much miss nothing that was committed late. */
const overlapMilliseconds = 30_000;

interface Shelf {
  at: number;
  byId: Map<string, Summary>;
}

/** The summaries of all notebooks of all spaces: first what the device kept, then what the server says, then only what changed. */
export function useSummaries(): Map<string, Summary> {
  const { spaces } = useSession();
  const workspace = useWorkspace();
  const queries = useQueryClient();
  const ids = spaces.map((space) => space.id).join();
  const { data } = useQuery({
    queryKey: ['summaries', ids],
    queryFn: async () => {
      const before = queries.getQueryData<Map<string, Shelf>>(['summaries', ids]);
      const shelves = await Promise.all(
        spaces.map(async (space) => [space.id, await refresh(workspace, space.id, before?.get(space.id))] as const),
      );
      return new Map(shelves);
    },
    refetchInterval: withoutNews,
    refetchOnMount: 'always',
    structuralSharing: false,
  });
  return useMemo(() => new Map([...(data?.values() ?? [])].flatMap((shelf) => [...shelf.byId])), [data]);
}

async function refresh(workspace: Workspace, space: string, before: Shelf | undefined): Promise<Shelf> {
  const kept = `summaries ${space}`;
  const known = before ?? ((await workspace.store.answer(kept)) as Shelf | undefined);
  try {
    const { serverTime, shut, summaries } = await getJson<SummaryAnswer>(
      `/api/spaces/${space}/summaries${known ? `?after=${known.at - overlapMilliseconds}` : ''}`,
    );
    if (known && summaries.length === 0 && !shut.some((notebook) => known.byId.has(notebook)))
      return { ...known, at: serverTime };
    const byId = new Map(known?.byId);
    for (const summary of summaries) byId.set(summary.notebook, summary);
    for (const notebook of shut) byId.delete(notebook);
    const shelf = { at: serverTime, byId };
    void workspace.store.keepAnswer(kept, shelf);
    return shelf;
  } catch (problem) {
    if (problem instanceof Unreachable) return known ?? { at: 0, byId: new Map() };
    throw problem;
  }
}

/** Lets the summaries of a space be asked for whole again, after a lock was opened. */
export function forgetSummaries(workspace: Workspace, space: string): Promise<void> {
  return workspace.store.forgetAnswer(`summaries ${space}`);
}

/** Gathers the notebooks whose strips are on the screen, and asks for them in one go. */
class StripLoader {
  private waiting = new Map<string, { resolve: (pages: ShownPage[]) => void; reject: (problem: unknown) => void }[]>();

  constructor(
    private readonly workspace: Workspace,
    private readonly space: string,
  ) {}

  load(notebook: string): Promise<ShownPage[]> {
    return new Promise((resolve, reject) => {
      if (this.waiting.size === 0) queueMicrotask(() => void this.send());
      this.waiting.set(notebook, [...(this.waiting.get(notebook) ?? []), { resolve, reject }]);
    });
  }

  private async send(): Promise<void> {
    const asked = this.waiting;
    this.waiting = new Map();
    const ids = [...asked.keys()].sort();
    try {
      const pages = await getJson<ShownPage[]>(`/api/spaces/${this.space}/strips?notebooks=${ids.join()}`);
      void keepTimes(this.workspace, this.space, pages).catch(() => {});
      for (const id of ids) {
        const own = pages.filter((page) => page.notebook === id);
        void this.workspace.store.keepAnswer(`strip ${id}`, own);
        for (const { resolve } of asked.get(id)!) resolve(own);
      }
    } catch (problem) {
      for (const id of ids) {
        const kept =
          problem instanceof Unreachable
            ? ((await this.workspace.store.answer(`strip ${id}`)) as ShownPage[] | undefined)
            : undefined;
        for (const { resolve, reject } of asked.get(id)!) {
          if (kept) resolve(kept);
          else reject(problem);
        }
      }
    }
  }
}

const loaders = new WeakMap<Workspace, Map<string, StripLoader>>();

function loaderOf(workspace: Workspace, space: string): StripLoader {
  let own = loaders.get(workspace);
  if (!own) loaders.set(workspace, (own = new Map()));
  let loader = own.get(space);
  if (!loader) own.set(space, (loader = new StripLoader(workspace, space)));
  return loader;
}

/** The pages of a notebook written on last; asked for anew when its summary says that it changed. */
export function useStrip(space: string, notebook: string, summary: Summary | undefined): ShownPage[] {
  const workspace = useWorkspace();
  const version = summary ? `${summary.writtenAt} ${summary.size} ${summary.pageCount}` : '';
  const { data } = useQuery({
    queryKey: ['strip', notebook, version],
    queryFn: () => loaderOf(workspace, space).load(notebook),
    staleTime: 60_000,
    retry: false,
    placeholderData: (before: ShownPage[] | undefined) => before,
  });
  return data ?? [];
}

/** Asks for summaries again at once, after something was done that only the server can count. */
export function useRefreshShelf(): () => void {
  const queries = useQueryClient();
  return () => void queries.invalidateQueries({ queryKey: ['summaries'] });
}

interface LockState {
  notebook: string;
  openUntil: number | null;
}

function lockQuery(workspace: Workspace, space: string) {
  return {
    queryKey: ['locks', space],
    queryFn: () => workspace.list<LockState[]>(`/api/spaces/${space}/locks`),
    refetchInterval: 60_000,
  };
}

/** The locks of all spaces; see {@link useLocks}. */
export function useLocksOf(spaces: { id: string }[]): (LockState & { space: string })[] {
  const workspace = useWorkspace();
  const all = useQueries({ queries: spaces.map((space) => lockQuery(workspace, space.id)), combine: dataOf });
  return useMemo(
    () => all.flatMap((locks, i) => locks.map((lock) => ({ ...lock, space: spaces[i]!.id }))),
    [all, spaces],
  );
}

const dataOf = (results: { data: LockState[] | undefined }[]) => results.map(({ data }) => data ?? []);

/** The notebooks with locks: until when each is open on this device; null where it is shut. */
export function useLocks(space: string): Map<string, number | null> {
  const workspace = useWorkspace();
  const queries = useQueryClient();
  // No guest sees a locked notebook.
  const isGuest = useIsGuest(space);
  const { data } = useQuery({ ...lockQuery(workspace, space), enabled: !isGuest });
  useEffect(() => {
    const next = Math.min(...(data ?? []).flatMap(({ openUntil }) => openUntil ?? []));
    if (!Number.isFinite(next)) return;
    const timer = setTimeout(
      () => {
        // Also without a connection: what is over is shut.
        queries.setQueryData<LockState[]>(['locks', space], (before) =>
          before?.map((one) =>
            one.openUntil !== null && one.openUntil <= Date.now() ? { ...one, openUntil: null } : one,
          ),
        );
        void queries.invalidateQueries({ queryKey: ['locks', space] });
      },
      Math.max(0, next - Date.now()) + 500,
    );
    return () => clearTimeout(timer);
  }, [data, queries, space]);
  return useMemo(() => new Map((data ?? []).map((one) => [one.notebook, one.openUntil])), [data]);
}
