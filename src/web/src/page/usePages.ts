import { useMemo } from 'react';
import { properties, randomNumber } from '../core/runtime';
import { defaultPaper, type NotebookPage } from '../library/useLibrary';
import { useDocument, useWorkspace } from '../sync/workspace';

/** The pages of a notebook in order, and adding one. */
export function usePages(space: string, notebook: string) {
  const { core } = useWorkspace();
  const document = useDocument(space, 'notebook', notebook);
  const version = document?.getVersion();
  return useMemo(
    () =>
      document && {
        pages: JSON.parse(core.LibraryBridge.Pages(document.handle)) as NotebookPage[],
        addAfter(page: string, paper = defaultPaper): string {
          const id = crypto.randomUUID();
          document.perform((handle, now) => core.LibraryBridge.AddPage(handle, id, page, paper, randomNumber(), now));
          return id;
        },
        setTitle(page: string, title: string): void {
          document.perform((handle, now) => core.LibraryBridge.SetProperty(handle, page, properties.name, title, now));
        },
      },
    // The version stands for all that the pages depend on.
    [document, core, version],
  );
}
