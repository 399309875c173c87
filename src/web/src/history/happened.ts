import { useInfiniteQuery } from '@tanstack/react-query';
import { dayKey } from '../model/time';
import { getJson } from '../server/api';

/** What somebody did to something within a quarter of an hour. */
export interface ShownDeed {
  person: string;
  name: string;
  colour: string;
  /** Of the document that it was done in: 1 library, 2 notebook, 3 page. */
  kind: number;
  target: string;
  /** The notebook it is in, or is; the root's id of a folder. */
  notebook: string;
  title: string;
  number: number;
  isInBin: boolean;
  deed: number;
  things: number;
  /** UTC milliseconds. */
  at: number;
}

/** What one person did on one day to one thing: a page, or of a whole library a notebook with its pages. */
export interface Happening {
  key: string;
  person: string;
  name: string;
  colour: string;
  /** What was done on pages, by deed. */
  written: Map<number, number>;
  /** What was done to pages, sections, notebooks and folders as such, by deed. */
  placed: Map<number, number>;
  pages: Set<string>;
  /** The latest of it. */
  last: ShownDeed;
}

/** The most that the server gives at once. */
const most = 1_000;

/** Where it is asked what happened. */
export interface HappenedIn {
  space: string;
  notebook?: string | undefined;
  page?: string | undefined;
}

/** What happened, the latest first, as far back as was asked for. */
export function useHappened({ space, notebook = '', page = '' }: HappenedIn) {
  const path = notebook ? `/api/spaces/${space}/notebooks/${notebook}/deeds` : `/api/spaces/${space}/deeds`;
  return useInfiniteQuery({
    queryKey: ['deeds', space, notebook, page],
    queryFn: ({ pageParam }) =>
      getJson<ShownDeed[]>(
        `${path}?${new URLSearchParams({ ...(page ? { page } : {}), ...(pageParam ? { before: String(pageParam) } : {}) }).toString()}`,
      ),
    initialPageParam: 0,
    getNextPageParam: (last: ShownDeed[]) => (last.length < most ? undefined : last.at(-1)!.at),
    retry: false,
  });
}

/** Gathers deeds by day, person and thing, the latest first. */
export function happenings(deeds: readonly ShownDeed[], byNotebook: boolean): { day: string; lines: Happening[] }[] {
  const days = new Map<string, Map<string, Happening>>();
  for (const deed of deeds) {
    const day = dayKey(deed.at);
    const thing = byNotebook && deed.kind > 1 ? deed.notebook : deed.target;
    const lines = days.get(day) ?? new Map<string, Happening>();
    days.set(day, lines);
    const key = `${day} ${deed.person} ${thing}`;
    const line = lines.get(key) ?? {
      key,
      person: deed.person,
      name: deed.name,
      colour: deed.colour,
      written: new Map(),
      placed: new Map(),
      pages: new Set(),
      last: deed,
    };
    lines.set(key, line);
    const sums = deed.kind === 3 ? line.written : line.placed;
    sums.set(deed.deed, (sums.get(deed.deed) ?? 0) + deed.things);
    if (deed.kind === 3) line.pages.add(deed.target);
    // Where there is something to be seen it leads: to what was written rather than to what was moved.
    if (line.last.kind !== 3 && deed.kind === 3) line.last = deed;
  }
  return [...days].map(([day, lines]) => ({ day, lines: [...lines.values()] }));
}
