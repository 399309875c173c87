import { t } from '@lingui/core/macro';
import { type NotebookEntry, root } from '../model/items';
import type { Workspace } from '../sync/workspace';

/** Where sections and pages can go: a notebook, or a section of it. */
export interface EntryPlace {
  space: string;
  notebook: string;
  /** The section; the root for the notebook itself. */
  parent: string;
  /** What it is called. */
  words: string;
}

export interface SectionPlace {
  space: string;
  notebook: string;
  parent: string;
  words: string;
  depth: number;
}

/** The section a page stands in, through pages it is nested in. */
export function sectionAround(find: (id: string) => NotebookEntry | undefined, id: string): NotebookEntry | undefined {
  let parent = find(find(id)?.parent ?? root);
  while (parent?.kind === 'page') parent = find(parent.parent);
  return parent;
}

/** The sections of a notebook in their order, but for some and what lies in them. */
export async function sectionsOf(
  workspace: Workspace,
  space: string,
  notebook: string,
  without: string[],
): Promise<SectionPlace[]> {
  const document = await workspace.acquire(space, 'notebook', notebook);
  try {
    const entries = JSON.parse(workspace.core.NotebookBridge.Outline(document.handle, false)) as NotebookEntry[];
    // Each comes before what lies in it.
    const skipped = new Set(without);
    for (const entry of entries) if (skipped.has(entry.parent) && entry.parent !== root) skipped.add(entry.id);
    return entries
      .filter((entry) => entry.kind === 'section' && !skipped.has(entry.id))
      .map((entry) => ({ space, notebook, parent: entry.id, words: entry.title || t`Section`, depth: entry.depth }));
  } finally {
    workspace.release(space, 'notebook', notebook);
  }
}
