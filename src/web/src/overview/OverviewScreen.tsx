import { may, maySeePast } from '../data/rights';
import { Button, SignButton } from '../ui/Button';
import { carryWords } from '../ui/carryWords';
import { t } from '@lingui/core/macro';
import {
  DndContext,
  type DragEndEvent,
  DragOverlay,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { ClockCounterClockwiseIcon } from '@phosphor-icons/react';
import { type KeyboardEvent, useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { LockedPages } from '../locks/LockDialog';
import { type NotebookEntry, openPath, overviewPath } from '../model/items';
import { useLibrary } from '../data/useLibrary';
import { usePersonal } from '../data/usePersonal';
import { useSelection } from '../ui/useChosen';
import { useLocks } from '../data/useShelf';
import { type Notebook, useNotebook } from '../data/useNotebook';
import type { Space } from '../server/session';
import { useSpaceOf } from '../data/useShared';
import { useNotebookSpots } from '../data/useNotebookSpots';
import { NotebookPast } from './NotebookPast';
import { OverviewBar } from './OverviewBar';
import { PageFace } from '../papers/PageFace';
import { PageGrid } from './PageGrid';
import { PageTile } from './PageTile';
import { usePageActions } from './usePageActions';
import { useShownPages } from '../data/useShownPages';

const sizeKey = 'quill.overview';

/** How wide tiles are, pixels. */
const tileSize = () => Number(localStorage.getItem(sizeKey) ?? (innerWidth < 640 ? 130 : 180));

/** All pages of a notebook at once, with section headings: to be put in order, many at a time. */
export function OverviewScreen() {
  const { space: id = '', notebook: notebookId = '' } = useParams();
  const space = useSpaceOf(id, notebookId);
  const locks = useLocks(id);
  const library = useLibrary(id);
  if (!space || !library) return <p className="p-10">{t`There is nothing here that you may see.`}</p>;
  const name = library.find(notebookId)?.name ?? '';
  if (locks.get(notebookId) === null) return <LockedPages space={space} notebook={notebookId} name={name} />;
  return <OpenOverview space={space} notebookId={notebookId} name={name} />;
}

function OpenOverview({ space, notebookId, name }: { space: Space; notebookId: string; name: string }) {
  const notebook = useNotebook(space.id, notebookId);
  const library = useLibrary(space.id);
  const [search, setSearch] = useSearchParams();
  const past = search.get('past');
  if (!notebook || !library) return <div className="h-full" aria-busy="true" />;
  if (past === null || !maySeePast(space)) return <Pages space={space} notebook={notebook} name={name} />;
  return (
    <NotebookPast
      space={space}
      notebook={notebook}
      library={library}
      name={name}
      size={tileSize()}
      from={Number(past)}
      onClose={() => setSearch({}, { replace: true })}
    />
  );
}

function Pages({ space, notebook, name }: { space: Space; notebook: Notebook; name: string }) {
  const navigate = useNavigate();
  const library = useLibrary(space.id)!;
  const personal = usePersonal();
  const shown = useShownPages(space.id, notebook.id);
  const spots = useNotebookSpots(space.id, notebook.id, notebook.pages, notebook.pages[0]?.id ?? '');
  const [size, setSize] = useState(tileSize);
  const [dragged, setDragged] = useState<string>();
  const selection = useSelection(notebook.pages.map((page) => page.id));
  const [columns, setColumns] = useState(1);
  const mayWrite = may(space, 'Write');
  const actions = usePageActions({ space, notebook, library, selection });
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 8 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 8 } }),
  );
  const open = useMemo(() => new Set(spots.filter((spot) => spot.open).map((spot) => spot.page)), [spots]);

  const drop = ({ active, over }: DragEndEvent) => {
    setDragged(undefined);
    const [where, target = ''] = String(over?.id ?? '').split(' ');
    const ids = actions.chosenOr(String(active.id)).filter((id) => id !== target);
    if (!where || ids.length === 0) return;
    actions.put(ids, where as 'before' | 'after' | 'section', target);
  };
  const onKey = (event: KeyboardEvent, page: NotebookEntry) => {
    const index = notebook.pages.findIndex((one) => one.id === page.id);
    const step = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -columns, ArrowDown: columns }[event.key];
    const focusOn = (id?: string) => document.querySelector<HTMLElement>(`[data-page='${id}']`)?.focus();
    if (event.altKey && step !== undefined && mayWrite) {
      actions.step(page, Math.sign(step));
      // It may stand in another row now, which is drawn anew.
      requestAnimationFrame(() => focusOn(page.id));
    } else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a') selection.all();
    else if (step !== undefined) focusOn(notebook.pages[index + step]?.id);
    else if (event.key === 'Delete' && mayWrite) actions.bin(actions.chosenOr(page.id));
    else if (event.key === ' ') selection.press(page.id, { shift: event.shiftKey, more: true });
    else if (event.key === 'Escape') selection.clear();
    else return;
    event.preventDefault();
  };

  const tileOf = (page: NotebookEntry) => (
    <PageTile
      key={page.id}
      page={page}
      width={size}
      face={<PageFace space={space.id} page={page} shown={shown.get(page.id)} width={size} />}
      tags={library.tagsOf(page.tags)}
      starred={personal?.stars.has(page.id) ?? false}
      bookmarked={personal?.bookmarks.has(page.id) ?? false}
      open={open.has(page.id)}
      chosen={selection.chosen.has(page.id)}
      choosing={selection.choosing}
      mayWrite={mayWrite}
      dropping={dragged !== undefined}
      menu={actions.menu(page)}
      onOpen={() => void navigate(openPath(space.id, notebook.id, page.id))}
      onChoose={(how) => selection.press(page.id, how)}
      onKey={(event) => onKey(event, page)}
    />
  );

  return (
    <div className="relative flex h-full flex-col" data-testid="overview">
      <header className="flex flex-wrap items-end gap-2 border-b border-base-300 px-10 pb-3 pt-6 max-sm:px-4">
        <div className="min-w-0 grow max-sm:w-full">
          <Link
            to={openPath(space.id, notebook.id)}
            className="text-quiet hover:underline"
            data-testid="overview-back"
          >{t`Back to the page`}</Link>
          <h1 className="truncate text-[30px] leading-tight">{name}</h1>
        </div>
        <label className="flex items-center gap-2 text-[13px] text-quiet max-sm:hidden">
          {t`Size`}
          <input
            type="range"
            min={80}
            max={300}
            step={10}
            value={size}
            data-testid="overview-size"
            className="range range-primary range-xs w-28"
            onChange={(event) => {
              localStorage.setItem(sizeKey, event.target.value);
              setSize(Number(event.target.value));
            }}
          />
        </label>
        {maySeePast(space) && (
          <SignButton
            label={t`The notebook as it was`}
            data-testid="overview-past"
            onClick={() => void navigate(`${overviewPath(space.id, notebook.id)}?past=1`)}
          >
            <ClockCounterClockwiseIcon size={22} weight="light" />
          </SignButton>
        )}
        <Button
          aria-pressed={selection.choosing}
          data-testid="overview-choose"
          onClick={() => (selection.choosing ? selection.clear() : selection.setChoosing(true))}
        >{t`Choose`}</Button>
        {mayWrite && (
          <Button
            look="primary"
            data-testid="overview-add"
            onClick={() =>
              void navigate(
                openPath(
                  space.id,
                  notebook.id,
                  notebook.addPageAfter(notebook.pages.at(-1)?.id ?? '', library.find(notebook.id)?.paper),
                ),
              )
            }
          >{t`New page`}</Button>
        )}
      </header>
      <DndContext
        sensors={sensors}
        accessibility={carryWords}
        collisionDetection={pointerWithin}
        onDragStart={({ active }) => setDragged(String(active.id))}
        onDragCancel={() => setDragged(undefined)}
        onDragEnd={drop}
      >
        <PageGrid notebook={notebook} size={size} name={name} onColumns={setColumns} tileOf={tileOf} />
        <DragOverlay dropAnimation={null}>
          {dragged && notebook.find(dragged) && (
            <div className="relative w-max opacity-85">
              <PageFace
                space={space.id}
                page={notebook.find(dragged)!}
                shown={shown.get(dragged)}
                width={Math.min(110, size)}
              />
              {actions.chosenOr(dragged).length > 1 && (
                <span className="absolute -end-2 -top-2 grid size-7 place-items-center rounded-full bg-primary text-[13px] text-primary-content">
                  {actions.chosenOr(dragged).length}
                </span>
              )}
            </div>
          )}
        </DragOverlay>
      </DndContext>
      {selection.chosen.size > 0 && (
        <OverviewBar
          count={selection.chosen.size}
          mayWrite={mayWrite}
          actions={actions}
          ids={notebook.pages.filter((page) => selection.chosen.has(page.id)).map((page) => page.id)}
          onClear={selection.clear}
        />
      )}
      {actions.dialog}
    </div>
  );
}
