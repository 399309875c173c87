import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { properties, sentenceOf } from '../core/runtime';
import { usePeople } from '../data/usePeople';
import { addressOf } from '../model/target';
import { LockedPages } from '../locks/LockDialog';
import { defaultPaper } from '../model/items';
import { copyText } from '../ui/saying';
import { useLibrary } from '../data/useLibrary';
import { usePersonal } from '../data/usePersonal';
import { useLocks, useSummaries } from '../data/useShelf';
import { sendJson } from '../server/api';
import { type Space, useSession } from '../server/session';
import { useShownPages } from '../data/useShownPages';
import { usePlannerEntries } from '../calendar/usePlannerEntries';
import { grows } from '../model/drawing';
import { useNotebookSpots } from '../data/useNotebookSpots';
import { addressOf as documentAddress } from '../sync/address';
import { useSyncState } from '../sync/syncState';
import { useWorkspace } from '../data/useWorkspace';
import { HeaderLine } from './HeaderLine';
import type { NextPage, NextPages } from '../sheet/ink/neighbours';
import type { View } from '../sheet/ink/view';
import { lastPageIn, type OpenNotebook } from '../data/openNotebooks';
import { Sheet } from './Sheet';
import { Thread } from './Thread';
import { type Notebook, type Turning, useNotebook } from '../data/useNotebook';
import type { Tools } from '../sheet/tools/useTools';

interface PaneProps {
  at: OpenNotebook;
  tools: Tools;
  tray: boolean;
  active: boolean;
  onTouch: () => void;
  onGo: (at: OpenNotebook, replace?: boolean) => void;
  /** What to bring into sight: a place, or a mark. */
  seek: { at?: string | undefined; mark?: string | undefined };
  margin?: { shown: boolean; toggle: () => void };
  onBeside?: () => void;
  onFull: () => void;
  onClose?: () => void;
}

/** One page with the line above it and the thread below; of two panes, each has its own place in its notebook. */
export function Pane(props: PaneProps) {
  const { spaces } = useSession();
  const space = spaces.find((one) => one.id === props.at.space);
  const locks = useLocks(props.at.space);
  const library = useLibrary(props.at.space);
  if (!space) return <p className="grow p-10">There is nothing here that you may see.</p>;
  const name = library?.find(props.at.notebook)?.name ?? '';
  return (
    <section
      aria-label={name}
      className="@container relative flex min-w-0 grow basis-0 flex-col border-r border-base-300 last:border-r-0"
      data-testid="pane"
      onPointerDownCapture={props.onTouch}
      onFocusCapture={props.onTouch}
    >
      {locks.get(props.at.notebook) === null ? (
        <LockedPages space={space} notebook={props.at.notebook} name={name} />
      ) : (
        <OpenPane {...props} space={space} isLocked={locks.has(props.at.notebook)} />
      )}
    </section>
  );
}

function OpenPane(props: PaneProps & { space: Space; isLocked: boolean }) {
  const { at, space, onGo } = props;
  const notebook = useNotebook(at.space, at.notebook);
  const summary = useSummaries().get(at.notebook);
  const isThere = notebook?.find(at.page)?.kind === 'page';
  // An old address of a page that moved to another notebook leads there.
  const movedTo = notebook && at.page && !isThere ? notebook.movedTo(at.page) : '';
  const target =
    notebook && !isThere && !movedTo
      ? (notebook.pages.find((one) => one.id === lastPageIn(at.notebook)) ?? notebook.pages[0])
      : undefined;
  useEffect(() => {
    if (target) onGo({ ...at, page: target.id }, true);
  }, [target?.id]);
  useEffect(() => {
    if (movedTo) onGo({ ...at, notebook: movedTo }, true);
  }, [movedTo]);
  if (!notebook) return <div className="grow bg-desk" aria-busy="true" />;
  if (isThere) return <OnPage {...props} notebook={notebook} />;
  if (target || movedTo) return null;
  if (!notebook.isHere)
    return (
      <div
        className="grid h-full place-content-center justify-items-center gap-2 bg-desk p-6 text-center"
        data-testid="not-here"
      >
        <p className="font-title text-[19px]">This notebook is not on this device yet</p>
        <p className="text-quiet">
          {summary ? `It has ${summary.pageCount === 1 ? '1 page' : `${summary.pageCount} pages`}. ` : ''}They come as
          soon as there is a connection. Notebooks that you have opened here can be read and written without one.
        </p>
      </div>
    );
  return (
    <div className="grid h-full place-content-center justify-items-center gap-3 bg-desk">
      <p className="font-title text-[19px]">This notebook has no pages yet</p>
      {space.role !== 'reader' && (
        <button
          type="button"
          className="btn btn-primary h-10 min-h-10"
          onClick={() => onGo({ ...at, page: notebook.addPageAfter('', defaultPaper) })}
        >
          Add the first page
        </button>
      )}
    </div>
  );
}

function OnPage({
  at,
  space,
  notebook,
  tools,
  tray,
  active,
  isLocked,
  seek,
  onGo,
  margin,
  onBeside,
  onFull,
  onClose,
}: PaneProps & { space: Space; notebook: Notebook; isLocked: boolean }) {
  const workspace = useWorkspace();
  const library = useLibrary(space.id);
  const personal = usePersonal();
  const people = usePeople(space.id);
  const queries = useQueryClient();
  const shown = useShownPages(space.id, at.notebook);
  const spots = useNotebookSpots(space.id, at.notebook, notebook.pages, at.page);
  const [present, setPresent] = useState<string[]>([]);
  const [problem, setProblem] = useState('');
  const { nearlyFull } = useSyncState();
  const handover = useRef<{ page: string; view: View }>(undefined);
  const mayWrite = space.role !== 'reader';
  const mayMake = mayWrite && !tools.reading;
  const index = notebook.pages.findIndex((one) => one.id === at.page);
  const current = notebook.pages[index]!;
  const node = library?.find(at.notebook);
  const go = (to: number) => notebook.pages[to] && onGo({ ...at, page: notebook.pages[to].id });
  const addAfter = () => onGo({ ...at, page: notebook.addPageAfter(at.page, node?.paper) });
  const entries = usePlannerEntries({ at, notebook, onGo: (page) => onGo({ ...at, page }) });

  /** Pages turn by pulling, by key, or by scrolling on; past an end a new one is made by who means it, and never by who reads. */
  const turn = (by: number, { meant, view }: { meant: boolean; view?: View }) => {
    const next = notebook.pages[index + by];
    if (next) {
      if (view) handover.current = { page: next.id, view };
      onGo({ ...at, page: next.id }, view !== undefined);
    } else if (!mayMake || !meant) return;
    else if (by > 0) addAfter();
    else
      onGo({
        ...at,
        page: notebook.addPage(current.parent, 'first', notebook.paperOf(current.parent) || current.paper),
      });
  };
  /** Whoever writes towards the end of the last page finds another one after it. */
  const onInk = (down: number) => {
    const wanted = notebook.turning === 'seamless' ? 0 : nearEnd;
    if (index === notebook.pages.length - 1 && down > wanted && !grows(current.paper))
      notebook.addPageAfter(at.page, node?.paper);
  };
  const nextPage = (page: { id: string; paper: string } | undefined): NextPage | undefined =>
    page && {
      paper: page.paper || defaultPaper,
      id: page.id,
      notebook: { handle: notebook.handle, id: notebook.id },
      open: () => workspace.acquire(space.id, 'page', page.id),
      close: () => workspace.release(space.id, 'page', page.id),
    };
  const next: NextPages = {
    turning: notebook.turning,
    before: nextPage(notebook.pages[index - 1]),
    after: nextPage(notebook.pages[index + 1]),
  };

  const [idBefore, idAfter] = [next.before?.id, next.after?.id];
  useEffect(() => {
    const near = [idAfter, idBefore].filter((id) => id !== undefined);
    const timer = setTimeout(() => near.forEach((id) => void workspace.prepare(space.id, id)), quiet);
    return () => {
      clearTimeout(timer);
      for (const id of near) workspace.unprepare(space.id, id);
    };
  }, [workspace, space.id, idBefore, idAfter]);

  useEffect(() => {
    if (!active) return;
    const key = (event: KeyboardEvent) => {
      if (event.target !== document.body) return;
      const isLast = index === notebook.pages.length - 1;
      if (event.key === 'PageDown' && isLast && event.ctrlKey && mayMake) addAfter();
      else if (event.key === 'PageDown') go(index + 1);
      else if (event.key === 'PageUp') go(index - 1);
    };
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  });

  const rename = (title: string) => {
    try {
      if (title !== current.title) notebook.set(at.page, properties.name, title);
      setProblem('');
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  const shut = () =>
    void sendJson('POST', `/api/spaces/${space.id}/locks/${at.notebook}/shut`).then(
      () => queries.invalidateQueries({ queryKey: ['locks', space.id] }),
      (error: Error) => setProblem(error.message),
    );

  return (
    <>
      <HeaderLine
        space={space}
        folder={library?.pathOf(at.notebook).at(-1)}
        notebook={{ id: at.notebook, name: node?.name ?? '' }}
        section={notebook.sectionOf(at.page)}
        page={current}
        count={notebook.pages.length}
        present={people.filter((person) => present.includes(person.id))}
        turning={notebook.turning}
        onCopyLink={() => copyText(addressOf({ kind: 'page', space: space.id, notebook: notebook.id, page: at.page }))}
        onRename={mayWrite ? rename : undefined}
        {...(mayWrite
          ? { onTurning: (turning: Turning) => notebook.set(notebook.id, properties.turning, turning) }
          : {})}
        {...(mayWrite && notebook.planner ? { onCalendar: entries.ask } : {})}
        problem={problem}
        {...(margin ? { margin } : {})}
        {...(onBeside ? { onBeside } : {})}
        {...(isLocked ? { onShut: shut } : {})}
        {...(onClose ? { onClose } : {})}
      />
      {nearlyFull === documentAddress(space.id, 'page', at.page) && (
        <div
          role="status"
          className="flex flex-wrap items-center gap-3 border-b border-base-300 bg-base-200 px-5 py-1.5"
          data-testid="nearly-full"
        >
          <span className="grow">This page is nearly full: it will soon take no more.</span>
          {mayWrite && (
            <button type="button" className="quiet-button" onClick={addAfter}>
              Go on on a new page
            </button>
          )}
        </div>
      )}
      <Sheet
        key={at.page}
        space={space}
        notebook={notebook}
        page={{ ...current, paper: current.paper || defaultPaper }}
        people={people}
        tools={tools}
        tray={tray}
        active={active}
        next={next}
        seek={seek}
        startView={handover.current?.page === at.page ? handover.current.view : undefined}
        onPresent={setPresent}
        onMake={() => nextPage({ id: notebook.addPageAfter(at.page, node?.paper), paper: '' })!}
        onTurn={turn}
        onPage={(page) => onGo({ ...at, page })}
        onEntry={entries.open}
        onInk={onInk}
        onFull={onFull}
      />
      <Thread
        space={space.id}
        notebook={at.notebook}
        pages={notebook.pages}
        index={index}
        marks={spots.filter((spot) => spot.kind === 'mark')}
        bookmarks={personal?.bookmarks ?? noBookmarks}
        shown={shown}
        sectionOf={(id) => notebook.sectionOf(id)}
        onGo={go}
        onBookmark={() => personal?.bookmark(at.page, at.notebook, !personal.bookmarks.has(at.page))}
        onAdd={mayWrite ? addAfter : undefined}
      />
      {entries.dialog}
    </>
  );
}

/** So far down a page one writes when the next one is laid ready. */
const nearEnd = 0.9;
/** The pages before and after are made ready when a page has been open for so long, ms. */
const quiet = 250;
const noBookmarks = new Set<string>();
