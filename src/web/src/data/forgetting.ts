import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { documentKinds } from '../core/runtime';
import { forgetPainted } from '../pictures/painted';
import { useSession } from '../server/session';
import { addressOf } from '../sync/address';
import { dropPictures } from '../sync/keptPictures';
import { type Workspace } from '../sync/workspace';
import { useWorkspace } from './useWorkspace';
import type { NotebookEntry, ShownPage } from '../model/items';
import { forgetSummaries, useLocksOf } from './useShelf';

/** Takes what this device holds of locked notebooks off it, whenever a lock is found shut. */
export function useForgetting(): void {
  const { spaces } = useSession();
  const workspace = useWorkspace();
  const queries = useQueryClient();
  const locks = useLocksOf(spaces);
  const forgotten = useRef(new Set<string>());
  useEffect(() => {
    for (const { space, notebook, openUntil } of locks) {
      const address = addressOf(space, 'notebook', notebook);
      if (openUntil !== null) {
        // Its summary, which was not told while it was shut, is asked for again.
        if (forgotten.current.delete(address))
          void forgetSummaries(workspace, space).then(() => queries.resetQueries({ queryKey: ['summaries'] }));
      } else if (!forgotten.current.has(address)) {
        forgotten.current.add(address);
        void forgetNotebook(workspace, space, notebook).then(() =>
          queries.invalidateQueries({ queryKey: ['summaries'] }),
        );
      }
    }
  }, [locks, workspace, queries]);
}

/**
 * Takes off this device those pages of a space that are in none of the notebooks one sees there as a guest: they were moved away.
 * @returns Whether the device knew all that was done to the notebooks; else it asks for that now, and is to be looked through again.
 */
export async function forgetOtherPages(
  workspace: Workspace,
  space: string,
  notebooks: readonly { id: string; pageCount: number }[],
): Promise<boolean> {
  const seen = new Set<string>();
  let isCurrent = true;
  for (const { id, pageCount } of notebooks) {
    const entries = await entriesOf(workspace, space, id);
    for (const entry of entries) seen.add(entry.id);
    if (entries.length === 0 || entries.filter((entry) => entry.kind === 'page' && !entry.inBin).length === pageCount)
      continue;
    isCurrent = false;
    await workspace.acquire(space, 'notebook', id);
    workspace.release(space, 'notebook', id);
  }
  const pages = (await workspace.store.pagesOf(space)).filter((page) => !seen.has(page));
  if (pages.length === 0) return isCurrent;
  await workspace.store.forget(pages.map((page) => addressOf(space, 'page', page)));
  forgetPainted(pages);
  await dropPictures((path) => pages.some((page) => path.includes(page)));
  return isCurrent;
}

/** The sections and pages of a notebook by what this device holds of it. */
async function entriesOf({ core, store }: Workspace, space: string, notebook: string): Promise<NotebookEntry[]> {
  const handle = core.DocumentBridge.Open(documentKinds.notebook);
  for (const { bytes } of (await store.peek(addressOf(space, 'notebook', notebook))).batches)
    core.DocumentBridge.Apply(handle, bytes);
  const entries = JSON.parse(core.NotebookBridge.Outline(handle, true)) as NotebookEntry[];
  core.DocumentBridge.Close(handle);
  return entries;
}

/** Takes a notebook off this device: documents, the strip, and pictures of pages. What still waits to be sent stays until it is. */
export async function forgetNotebook(workspace: Workspace, space: string, notebook: string): Promise<void> {
  const { store } = workspace;
  const strip = ((await store.answer(`strip ${notebook}`)) as ShownPage[] | undefined) ?? [];
  const entries = await entriesOf(workspace, space, notebook);
  const pages = [...new Set([...strip, ...entries].map((page) => page.id))];
  await store.forget([addressOf(space, 'notebook', notebook), ...pages.map((page) => addressOf(space, 'page', page))]);
  workspace.letGo(addressOf(space, 'notebook', notebook));
  for (const answer of [
    `strip ${notebook}`,
    ...['spots', 'pages'].map((list) => `/api/spaces/${space}/notebooks/${notebook}/${list}`),
  ])
    await store.forgetAnswer(answer);
  const marks = (await store.answer('/api/follow-ups')) as { space: string; notebook: string }[] | undefined;
  if (marks)
    await store.keepAnswer(
      '/api/follow-ups',
      marks.filter((mark) => mark.space !== space || mark.notebook !== notebook),
    );
  forgetPainted(pages);
  await dropPictures((path) => pages.some((page) => path.includes(page)));
}
