import { t } from '@lingui/core/macro';
import { CopyIcon } from '@phosphor-icons/react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Library } from '../data/Library';
import { may } from '../data/rights';
import { sectionAround } from '../data/sections';
import type { Notebook } from '../data/useNotebook';
import { useWriters } from '../data/usePeople';
import { useShownPages } from '../data/useShownPages';
import { useDocument, useWorkspace } from '../data/useWorkspace';
import { became, pagesThen } from '../history/haveBack';
import { type Became, BecameSign, PlacesBar } from '../history/PlacesBar';
import { copyThing } from '../history/copyThing';
import { useNaming } from '../history/moments';
import { useDifferences, usePlacesPast } from '../history/usePlacesPast';
import { type NotebookEntry, openPath, overviewPath, root } from '../model/items';
import { PageFace } from '../papers/PageFace';
import type { Space } from '../server/session';
import { say } from '../ui/saying';
import { useSelection } from '../ui/useChosen';
import { PageGrid } from './PageGrid';
import type { Outlined } from './rows';

interface NotebookPastProps {
  space: Space;
  notebook: Notebook;
  library: Library;
  name: string;
  size: number;
  /** The moment to begin with, UTC milliseconds; 1 for now. */
  from: number;
  onClose: () => void;
}

const noPeople: string[] = [];

/** All pages of a notebook as they were, under their sections of then; compared with how they are, and had back. */
export function NotebookPast({ space, notebook, library, name, size, from, onClose }: NotebookPastProps) {
  const navigate = useNavigate();
  const { PlacesBridge } = useWorkspace().core;
  const document = useDocument(space.id, 'notebook', notebook.id);
  const past = usePlacesPast(document, `/api/spaces/${space.id}/notebooks/${notebook.id}/chart`, from);
  const people = useWriters(space.id, notebook.id, past.chart?.people ?? noPeople);
  const [compares, setCompares] = useState(false);
  const naming = useNaming(notebook, past.time);
  const shown = useShownPages(space.id, notebook.id);
  const { data: known } = useQuery({
    queryKey: ['then', notebook.id, past.resting],
    queryFn: () => pagesThen(space.id, notebook.id, past.resting),
    enabled: !past.isNow && past.resting === past.until,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const stood = useMemo(() => new Map((known ?? []).map((page) => [page.page, page])), [known]);
  const handle = document?.handle;
  const then = useMemo(() => {
    // As it is now it goes on.
    if (past.isNow) return notebook.entries;
    return handle === undefined || past.shown === 0
      ? []
      : (JSON.parse(PlacesBridge.Outline(handle)) as NotebookEntry[]);
  }, [PlacesBridge, handle, past.isNow, past.shown, notebook.entries]);
  const entries = useMemo(() => (compares ? merged(notebook.entries, then) : then), [compares, notebook.entries, then]);
  const differences = useDifferences(document, past, entries, notebook.version);
  const outline = useMemo(() => outlined(entries), [entries]);
  const pages = useMemo(() => then.filter((entry) => entry.kind === 'page').map((entry) => entry.id), [then]);
  const selection = useSelection(pages);
  useEffect(() => {
    if (past.isNow) selection.clear();
  }, [past.isNow]);

  const becameOf = (page: NotebookEntry): Became | undefined => {
    const since = differences.get(page.id);
    if (since === became.came) return 'came';
    if (since === became.binned) return 'binned';
    if (since === became.gone) return 'gone';
    if (typeof stood.get(page.id)?.until === 'number') return 'written';
    return since === became.changed ? 'changed' : undefined;
  };
  const signs = outline.entries.filter((entry) => entry.kind === 'page').map(becameOf);
  const mayWrite = may(space, 'Write');

  const open = (page: NotebookEntry) => {
    const since = differences.get(page.id);
    if (since === became.gone) return say(t`It was erased from the bin, or moved to another notebook.`);
    if (since === became.binned) {
      if (mayWrite) selection.press(page.id, { shift: false, more: true });
      return say(t`It is in the bin now, and opens once it is back.`);
    }
    const path = openPath(space.id, notebook.id, page.id);
    void navigate(past.isNow || since === became.came ? path : `${path}?past=${past.until}`);
  };
  const tileOf = (page: NotebookEntry) => {
    const sign = compares && !past.isNow ? becameOf(page) : undefined;
    const isChosen = selection.chosen.has(page.id);
    const at = stood.get(page.id);
    const since = differences.get(page.id);
    return (
      <div key={page.id} className="relative shrink-0" style={{ width: size }}>
        <button
          type="button"
          aria-pressed={selection.choosing ? isChosen : undefined}
          aria-label={[t`Page ${page.number}`, page.title].filter(Boolean).join(', ')}
          data-testid="past-page"
          data-page={page.id}
          data-name={page.title}
          className={`grid w-full place-items-center ${sign === 'came' ? 'opacity-55' : ''} ${isChosen ? 'outline-[3px] outline-offset-2 outline-primary' : 'hover:outline-2 hover:outline-offset-1 hover:outline-base-300'}`}
          style={{ height: Math.round(size * 1.414) }}
          onClick={(event) =>
            selection.choosing && since !== became.came
              ? selection.press(page.id, { shift: event.shiftKey, more: true })
              : open(page)
          }
        >
          <PageFace
            space={space.id}
            page={page}
            shown={
              past.isNow || !at || since === became.came
                ? shown.get(page.id)
                : { sequence: at.sequence, ...(at.until === null ? {} : { until: at.until }) }
            }
            width={size}
          />
        </button>
        <div className="h-10 pt-0.5 text-[13px] leading-tight">
          <p className="truncate">
            <span className="text-quiet">{page.number}</span> {page.title}
          </p>
          {sign && <BecameSign became={sign} />}
        </div>
      </div>
    );
  };

  return (
    <div
      className="relative flex h-full flex-col"
      data-testid="notebook-past"
      data-pages={pages.length}
      data-shown={past.shown}
    >
      <PlacesBar
        past={past}
        label={t`Moment of the notebook`}
        people={people}
        moments={notebook.moments}
        compares={compares}
        onCompare={setCompares}
        signs={signs}
        {...(mayWrite
          ? {
              back: {
                selection,
                wanted: () => ({
                  space: space.id,
                  isGuest: space.isGuest ?? false,
                  time: past.until,
                  notebooks: [
                    {
                      id: notebook.id,
                      ...(selection.chosen.size > 0 ? { entries: selection.chosen } : {}),
                    },
                  ],
                  shown: notebook.id,
                }),
              },
            }
          : {})}
        more={
          mayWrite
            ? [
                ...(space.isGuest || past.isNow
                  ? []
                  : [
                      {
                        label: t`A notebook of its own as it was`,
                        testId: 'history-copy',
                        icon: <CopyIcon size={20} weight="light" />,
                        onChoose: () =>
                          copyThing(
                            library,
                            { id: notebook.id, name, parent: library.find(notebook.id)?.parent ?? root },
                            past.until,
                            (made) => void navigate(overviewPath(space.id, made)),
                          ),
                      },
                    ]),
                naming.entry,
              ]
            : []
        }
        onClose={onClose}
      />
      <h1 className="px-10 pt-5 text-[26px] leading-tight max-sm:px-4" data-testid="past-name">
        {name}
      </h1>
      {pages.length === 0 && past.shown > 0 && (
        <p className="px-10 pt-3 text-quiet max-sm:px-4">{t`There was no page in it then.`}</p>
      )}
      <PageGrid notebook={outline} size={size} name={name} onColumns={noColumns} tileOf={tileOf} />
      {naming.dialog}
    </div>
  );
}

const noColumns = () => {};

/** What is and what was, in one row: what is gone stands after what it stood after. */
function merged(now: NotebookEntry[], then: NotebookEntry[]): NotebookEntry[] {
  const stands = new Set(now.map((entry) => entry.id));
  const after = new Map<string, NotebookEntry[]>();
  let before = '';
  for (const entry of then) {
    if (stands.has(entry.id)) before = entry.id;
    else if (after.has(before)) after.get(before)!.push(entry);
    else after.set(before, [entry]);
  }
  return [...(after.get('') ?? []), ...now.flatMap((entry) => [entry, ...(after.get(entry.id) ?? [])])];
}

function outlined(entries: NotebookEntry[]): Outlined {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  return {
    entries,
    sectionOf: (id) => sectionAround((entry) => byId.get(entry), id),
  };
}
