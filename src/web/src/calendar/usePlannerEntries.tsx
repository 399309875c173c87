import { t } from '@lingui/core/macro';
import { type ReactNode, useState } from 'react';
import { properties } from '../core/runtime';
import { nodeKinds, root } from '../model/items';
import type { OpenNotebook } from '../data/openNotebooks';
import type { Notebook } from '../data/useNotebook';
import { useWorkspace } from '../data/useWorkspace';
import { CalendarDialog } from './CalendarDialog';

export interface CalendarEntry {
  id: string;
  title: string;
  place: string;
  start: string;
  end: string;
  allDay: boolean;
  gone: boolean;
}

/** What a press on a calendar's entry does, and taking over a newer calendar. */
export function usePlannerEntries({
  at,
  notebook,
  onGo,
}: {
  at: OpenNotebook;
  notebook: Notebook;
  onGo: (page: string) => void;
}): { open: (entry: string) => void; ask: () => void; dialog: ReactNode } {
  const { core } = useWorkspace();
  const [asking, setAsking] = useState(false);
  return {
    /** Opens the note page of an entry, or makes it: its page is named in the entry's own words, and leads back to its day. */
    open: (entry) => {
      const page = core.PlannerBridge.PageId(notebook.handle, notebook.id, `entry/${entry}`);
      if (!notebook.find(page)) {
        const title = core.PlannerBridge.NoteTitle(notebook.handle, notebook.id, entry);
        const section =
          notebook.entries.find((one) => one.kind === 'section' && (one.title === 'Notes' || one.title === t`Notes`))
            ?.id ?? notebook.addSection(root, t`Notes`);
        const paper = notebook.pages.find((one) => one.planner?.startsWith('notes/'))?.paper ?? 'a4-ruled-710';
        notebook.perform((handle, now) =>
          core.LibraryBridge.SetProperty(handle, page, properties.planner, `entry/${entry}`, now),
        );
        notebook.perform((handle, now) => core.LibraryBridge.SetProperty(handle, page, properties.paper, paper, now));
        notebook.set(page, properties.binned, '');
        if (title) notebook.set(page, properties.name, title);
        notebook.performTogether((handle, now) =>
          core.NotebookBridge.Place(handle, page, nodeKinds.page, section, '', now),
        );
      }
      onGo(page);
    },
    ask: () => setAsking(true),
    dialog: asking && <CalendarDialog at={at} notebook={notebook} onClose={() => setAsking(false)} />,
  };
}
