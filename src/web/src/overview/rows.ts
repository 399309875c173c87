import { type RefObject, useLayoutEffect, useState } from 'react';
import type { NotebookEntry } from '../model/items';

export type Row =
  | { kind: 'section'; key: string; section: NotebookEntry | undefined; count: number }
  | { kind: 'pages'; key: string; pages: NotebookEntry[] };

/** Sections and pages in reading order, as they are or were. */
export interface Outlined {
  entries: NotebookEntry[];
  /** The section a page stands in, through pages it is nested in. */
  sectionOf: (id: string) => NotebookEntry | undefined;
}

/** Between two tiles, pixels. */
export const gap = 20;

/** Section by section, in rows of as many pages as fit. */
export function rowsOf(notebook: Outlined, columns: number): Row[] {
  const groups: { section: NotebookEntry | undefined; pages: NotebookEntry[] }[] = [];
  for (const entry of notebook.entries) {
    if (entry.kind === 'section') groups.push({ section: entry, pages: [] });
    else {
      const section = notebook.sectionOf(entry.id);
      if (groups.at(-1)?.section?.id !== section?.id || groups.length === 0) groups.push({ section, pages: [] });
      groups.at(-1)!.pages.push(entry);
    }
  }
  const hasSections = groups.some((group) => group.section);
  return groups.flatMap(({ section, pages }, g) => [
    ...(hasSections
      ? [{ kind: 'section' as const, key: `section ${g} ${section?.id ?? ''}`, section, count: pages.length }]
      : []),
    ...Array.from({ length: Math.ceil(pages.length / columns) }, (_, i) => ({
      kind: 'pages' as const,
      key: `pages ${pages[i * columns]!.id}`,
      pages: pages.slice(i * columns, (i + 1) * columns),
    })),
  ]);
}

/** How many tiles so wide fit beside each other. */
export function useColumns(scroller: RefObject<HTMLDivElement | null>, tile: number): number {
  const [width, setWidth] = useState(1100);
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    observer.observe(scroller.current!);
    return () => observer.disconnect();
  }, [scroller]);
  return Math.max(1, Math.floor((width + gap) / tile));
}
