import { useEffect, useRef } from 'react';
import type { OpenNotebook } from '../data/openNotebooks';
import type { Notebook } from '../data/useNotebook';
import { useWorkspace } from '../data/useWorkspace';
import { grows } from '../model/drawing';
import { defaultPaper } from '../model/items';
import type { NextPage, NextPages } from '../sheet/ink/neighbours';
import type { View } from '../sheet/ink/view';

/** So far down a page one writes when the next one is laid ready. */
const nearEnd = 0.9;
/** The pages before and after are made ready when a page has been open for so long, ms. */
const quiet = 250;

interface Turning {
  at: OpenNotebook;
  notebook: Notebook;
  /** The paper that new pages lie on. */
  paper: string | undefined;
  /** Whether pages may be made here now. */
  mayMake: boolean;
  onGo: (at: OpenNotebook, replace?: boolean) => void;
}

/** How one comes from page to page: what lies before and after, made ready to be turned to; and what is made past the end. */
export function usePageTurning({ at, notebook, paper, mayMake, onGo }: Turning) {
  const workspace = useWorkspace();
  const handover = useRef<{ page: string; view: View }>(undefined);
  const index = notebook.pages.findIndex((one) => one.id === at.page);
  const current = notebook.pages[index]!;

  const nextPage = (page: { id: string; paper: string } | undefined): NextPage | undefined =>
    page && {
      paper: page.paper || defaultPaper,
      id: page.id,
      notebook: { handle: notebook.handle, id: notebook.id },
      open: () => workspace.acquire(at.space, 'page', page.id),
      close: () => workspace.release(at.space, 'page', page.id),
    };
  const next: NextPages = {
    turning: notebook.turning,
    before: nextPage(notebook.pages[index - 1]),
    after: nextPage(notebook.pages[index + 1]),
  };
  const [idBefore, idAfter] = [next.before?.id, next.after?.id];
  useEffect(() => {
    const near = [idAfter, idBefore].filter((id) => id !== undefined);
    const timer = setTimeout(() => near.forEach((id) => void workspace.prepare(at.space, id)), quiet);
    return () => {
      clearTimeout(timer);
      for (const id of near) workspace.unprepare(at.space, id);
    };
  }, [workspace, at.space, idBefore, idAfter]);

  const go = (to: number) => notebook.pages[to] && onGo({ ...at, page: notebook.pages[to].id });
  const addAfter = () => onGo({ ...at, page: notebook.addPageAfter(at.page, paper) });
  return {
    index,
    current,
    next,
    go,
    addAfter,
    /** Where the view goes on that was scrolled over from the page before. */
    startView: handover.current?.page === at.page ? handover.current.view : undefined,
    /** Makes a page after this one, which stays open. */
    make: () => nextPage({ id: notebook.addPageAfter(at.page, paper), paper: '' })!,
    /** Pages turn by pulling, by key, or by scrolling on; past an end a new one is made by who means it, and never by who reads. */
    turn: (by: number, { meant, view }: { meant: boolean; view?: View }) => {
      const to = notebook.pages[index + by];
      if (to) {
        if (view) handover.current = { page: to.id, view };
        onGo({ ...at, page: to.id }, view !== undefined);
      } else if (!mayMake || !meant) return;
      else if (by > 0) addAfter();
      else
        onGo({
          ...at,
          page: notebook.addPage(current.parent, 'first', notebook.paperOf(current.parent) || current.paper),
        });
    },
    /** Whoever writes towards the end of the last page finds another one after it. */
    inked: (down: number) => {
      const wanted = notebook.turning === 'seamless' ? 0 : nearEnd;
      if (index === notebook.pages.length - 1 && down > wanted && !grows(current.paper))
        notebook.addPageAfter(at.page, paper);
    },
  };
}
