import { type RefObject, useEffect, useRef, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { usePersonal } from '../data/usePersonal';
import { BesideDialog } from './BesideDialog';
import { Margin } from '../margin/Margin';
import { besidePath, noteOpen, type OpenNotebook, readBeside } from '../data/openNotebooks';
import { Pane } from './Pane';
import { useTools } from '../sheet/tools/useTools';

const visitKey = 'quill.visited';
const sameVisitMilliseconds = 30 * 60_000;
const nowhere = {};

/** A page on the desk, or two beside each other; the contents at its side when wanted. */
export function PageScreen() {
  const { space = '', notebook = '', page = '' } = useParams();
  const [search, setSearch] = useSearchParams();
  const personal = usePersonal();
  const navigate = useNavigate();
  const beside = readBeside(search.get('beside'));
  const tools = useTools(personal, notebook, search.get('pen'));
  const [second, setSecond] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const [contents, setContents] = useState(() => localStorage.getItem('quill.contents') === '1');
  const here: OpenNotebook = { space, notebook, page };
  useVisit(space, notebook);

  useEffect(() => {
    if (page) noteOpen({ space, notebook, page });
  }, [space, notebook, page]);

  const screen = useRef<HTMLDivElement>(null);
  useLeavingKeys(screen);

  const toggleContents = () => {
    localStorage.setItem('quill.contents', contents ? '0' : '1');
    setContents(!contents);
  };
  /** Full view: the page alone, without the rail. Leaving the page ends it. */
  const toggleFull = () => {
    const root = document.documentElement;
    if (root.dataset.full) delete root.dataset.full;
    else root.dataset.full = '1';
  };
  useEffect(() => () => void delete document.documentElement.dataset.full, []);
  useEffect(() => {
    const leave = (event: KeyboardEvent) => {
      const root = document.documentElement;
      // What is selected, or open over the page, goes first.
      const isTaken = document.querySelector('[data-testid=selection], [role=dialog]') !== null;
      if (event.key === 'Escape' && root.dataset.full && !event.defaultPrevented && !isTaken) delete root.dataset.full;
    };
    // Before the page's own keys let go of what is selected.
    addEventListener('keydown', leave, true);
    return () => removeEventListener('keydown', leave, true);
  }, []);
  const path = (at: OpenNotebook, other = beside) =>
    other ? besidePath(at, other) : `/page/${at.space}/${at.notebook}/${at.page}`;

  return (
    <div ref={screen} className="flex h-full">
      <Pane
        at={here}
        tools={tools}
        tray
        active={!beside || !second}
        onTouch={() => setSecond(false)}
        onGo={(at, replace, mark) =>
          void navigate(mark ? `/page/${at.space}/${at.notebook}/${at.page}?mark=${mark}` : path(at), {
            replace: replace ?? false,
          })
        }
        seek={{
          at: search.get('at') ?? undefined,
          mark: search.get('mark') ?? undefined,
          past: search.get('past') ?? undefined,
        }}
        onPast={(on) =>
          setSearch(
            (now) => {
              if (on) now.set('past', '1');
              else now.delete('past');
              return now;
            },
            { replace: true },
          )
        }
        margin={{ shown: contents, toggle: toggleContents }}
        onFull={toggleFull}
        onBeside={() => setChoosing(true)}
      />
      {beside && (
        <Pane
          at={beside}
          tools={tools}
          tray={false}
          active={second}
          seek={nowhere}
          onFull={toggleFull}
          onTouch={() => setSecond(true)}
          onGo={(at, replace) => void navigate(path(here, at), { replace: replace ?? false })}
          onClose={() => void navigate(`/page/${space}/${notebook}/${page}`)}
        />
      )}
      {contents && page && (
        <Margin
          at={here}
          isBesideTwo={beside !== undefined}
          onGo={(to, query) =>
            void navigate(query ? `/page/${space}/${notebook}/${to}?${query}` : path({ ...here, page: to }))
          }
          onBeside={(to) => void navigate(besidePath(here, { ...here, page: to }))}
          onClose={toggleContents}
        />
      )}
      {choosing && (
        <BesideDialog
          here={here}
          onChoose={(at) => void navigate(besidePath(here, at))}
          onClose={() => setChoosing(false)}
        />
      )}
    </div>
  );
}

/** Notes that the person opened a notebook; coming back within half an hour is the same visit. */
function useVisit(space: string, notebook: string): void {
  const library = usePersonal()?.library;
  const isReady = library !== undefined;
  useEffect(() => {
    if (!library || !notebook) return;
    const visited = JSON.parse(localStorage.getItem(visitKey) ?? '{}') as Record<string, number>;
    const now = Date.now();
    if (now - (visited[notebook] ?? 0) < sameVisitMilliseconds) return;
    const lately = Object.entries(visited).filter(([, at]) => now - at < sameVisitMilliseconds);
    localStorage.setItem(visitKey, JSON.stringify({ ...Object.fromEntries(lately), [notebook]: now }));
    library.visit(space, notebook);
    // The library is a new object after every change; only another notebook is another visit.
  }, [space, notebook, isReady]);
}

/** A pen or the mouse that pressed a button leaves the keys to the page; what is pressed by a key keeps the focus. */
function useLeavingKeys(screen: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const element = screen.current!;
    const pressed = (event: MouseEvent) => {
      const button = (event.target as Element).closest<HTMLElement>('button');
      if (event.detail > 0 && button && button === document.activeElement && !button.hasAttribute('aria-haspopup'))
        button.blur();
    };
    element.addEventListener('click', pressed);
    return () => element.removeEventListener('click', pressed);
  }, [screen]);
}
