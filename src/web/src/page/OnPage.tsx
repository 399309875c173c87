import { may, maySeePast, mayShare } from '../data/rights';
import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { usePlannerEntries } from '../calendar/usePlannerEntries';
import { properties, sentenceOf } from '../core/runtime';
import { useLibrary } from '../data/useLibrary';
import type { Notebook, Turning } from '../data/useNotebook';
import { useNotebookSpots } from '../data/useNotebookSpots';
import { useWriters } from '../data/usePeople';
import { usePersonal } from '../data/usePersonal';
import { useIsTaughtIn, useTeachesIn } from '../data/useLecterns';
import { useShownPages } from '../data/useShownPages';
import { useStanding, useStandingIn } from '../data/useWhereabouts';
import { defaultPaper } from '../model/items';
import { LecternLine } from '../lectern/LecternLine';
import { useShowingFrom, useTeaching } from '../lectern/useTeaching';
import { addressOf } from '../model/target';
import { sendJson } from '../server/api';
import { type Space, useSession } from '../server/session';
import { ShareDialog } from '../sharing/ShareDialog';
import { addressOf as documentAddress } from '../sync/address';
import { useSyncState } from '../sync/syncState';
import type { OpenNotebook } from '../data/openNotebooks';
import type { Tools } from '../sheet/hand/tool';
import { copyText } from '../ui/saying';
import { HeaderLine } from './HeaderLine';
import { type Seek, Sheet } from './Sheet';
import { Others } from './Others';
import { Thread } from './Thread';
import { usePageTurning } from './usePageTurning';
import { useTurnKeys } from './useTurnKeys';

export interface PaneProps {
  at: OpenNotebook;
  tools: Tools;
  tray: boolean;
  active: boolean;
  onTouch: () => void;
  /** Goes to a page, and to a mark on it. */
  onGo: (at: OpenNotebook, replace?: boolean, mark?: string) => void;
  seek: Seek;
  /** Looks at the page as it was, or as it is again. */
  onPast?: (on: boolean) => void;
  margin?: { shown: boolean; toggle: () => void };
  onBeside?: () => void;
  onFull: () => void;
  onClose?: () => void;
}

const noBookmarks = new Set<string>();

/** A page that is there: the line above it, its sheet, the thread below. */
export function OnPage({
  at,
  space,
  notebook,
  tools,
  tray,
  active,
  isLocked,
  seek,
  onGo,
  onPast,
  margin,
  onBeside,
  onFull,
  onClose,
}: PaneProps & { space: Space; notebook: Notebook; isLocked: boolean }) {
  const library = useLibrary(space.id);
  const personal = usePersonal();
  const queries = useQueryClient();
  const shown = useShownPages(space.id, at.notebook);
  const spots = useNotebookSpots(space.id, at.notebook, notebook.pages, at.page);
  const marks = spots.filter((spot) => spot.kind === 'mark');
  const [present, setPresent] = useState<string[]>([]);
  const { person: me } = useSession();
  const standing = useStandingIn(at.notebook);
  const onThisPage = new Set(standing.filter((one) => one.page === at.page).map((one) => one.person));
  const people = useWriters(space.id, at.notebook, [...new Set([...present, ...standing.map((one) => one.person)])]);
  const [sharing, setSharing] = useState(false);
  const [problem, setProblem] = useState('');
  const [controls, setControls] = useState<HTMLElement | null>(null);
  useStanding(space.id, at.notebook, at.page, active);
  useShowingFrom(at.notebook, at.page, active);
  const { open: openLectern } = useTeaching();
  const teaches = useTeachesIn(at.notebook);
  const isTaught = useIsTaughtIn(at.notebook) || teaches;
  const { nearlyFull } = useSyncState();
  const mayWrite = may(space, 'Write');
  const mayMake = mayWrite && !tools.reading;
  const node = library?.find(at.notebook);
  const { index, current, next, go, addAfter, startView, make, turn, inked } = usePageTurning({
    at,
    notebook,
    paper: node?.paper,
    mayMake,
    onGo,
  });
  const entries = usePlannerEntries({ at, notebook, onGo: (page) => onGo({ ...at, page }) });
  useTurnKeys({ active, index, count: notebook.pages.length, go, add: mayMake ? addAfter : undefined });

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
      (error: unknown) => setProblem(sentenceOf(error)),
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
        present={people.filter(
          (person) => present.includes(person.id) || (person.id !== me.id && onThisPage.has(person.id)),
        )}
        others={<Others at={at} notebook={notebook} people={people} onGo={(page) => onGo({ ...at, page })} />}
        turning={notebook.turning}
        {...(node && mayShare(space, node.createdBy === me.id, false) ? { onShare: () => setSharing(true) } : {})}
        {...(may(space, 'Teach') && !isTaught
          ? { onTeach: () => void openLectern(space.id, at.notebook, at.page) }
          : {})}
        {...(onPast && maySeePast(space) ? { onHistory: () => onPast(seek.past === undefined) } : {})}
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
        onControls={setControls}
      />
      {active && (
        <LecternLine
          at={at}
          space={space}
          notebook={notebook}
          people={people}
          marks={marks}
          tools={tools}
          onGo={(page, mark) => onGo({ ...at, page }, false, mark)}
        />
      )}
      {nearlyFull === documentAddress(space.id, 'page', at.page) && (
        <div
          role="status"
          className="flex flex-wrap items-center gap-3 border-b border-base-300 bg-base-200 px-5 py-1.5"
          data-testid="nearly-full"
        >
          <span className="grow">{t`This page is nearly full: it will soon take no more.`}</span>
          {mayWrite && <Button onClick={addAfter}>{t`Go on on a new page`}</Button>}
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
        onPast={maySeePast(space) ? onPast : undefined}
        startView={startView}
        onPresent={setPresent}
        onMake={make}
        onTurn={turn}
        onPage={(page) => onGo({ ...at, page })}
        onEntry={entries.open}
        onInk={inked}
        onFull={onFull}
        controls={controls}
      />
      <Thread
        space={space.id}
        notebook={at.notebook}
        pages={notebook.pages}
        index={index}
        marks={marks}
        bookmarks={personal?.bookmarks ?? noBookmarks}
        shown={shown}
        sectionOf={(id) => notebook.sectionOf(id)}
        onGo={go}
        onBookmark={() => personal?.bookmark(at.page, at.notebook, !personal.bookmarks.has(at.page))}
        onAdd={mayWrite ? addAfter : undefined}
      />
      {entries.dialog}
      {sharing && (
        <ShareDialog
          space={space.id}
          thing={{ node: at.notebook, name: node?.name ?? '', isFolder: false, page: at.page }}
          onClose={() => setSharing(false)}
        />
      )}
    </>
  );
}
