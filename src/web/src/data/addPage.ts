import { properties } from '../core/runtime';
import type { Workspace } from '../sync/workspace';
import { type NotebookEntry, nodeKinds, root } from '../model/items';

/** Adds a page at the end of a notebook; the same id twice makes one page. */
export async function addPage(
  workspace: Workspace,
  space: string,
  notebook: string,
  page: string,
  paper: string,
  title = '',
): Promise<void> {
  const { NotebookBridge, LibraryBridge } = workspace.core;
  const document = await workspace.acquire(space, 'notebook', notebook);
  const known = (JSON.parse(NotebookBridge.Outline(document.handle, true)) as NotebookEntry[]).find(
    (entry) => entry.id === page,
  );
  if (known?.inBin)
    document.perform((handle, now) => LibraryBridge.SetProperty(handle, page, properties.binned, '', now));
  if (!known) {
    workspace.made(page);
    document.performTogether((handle, now) =>
      NotebookBridge.Make(handle, page, nodeKinds.page, root, '', title, paper, now),
    );
  }
  workspace.release(space, 'notebook', notebook);
}
