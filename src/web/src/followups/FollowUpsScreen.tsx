import { may } from '../data/rights';
import { useKeptFocus } from '../ui/useKeptFocus';
import { t } from '@lingui/core/macro';
import { DownloadSimpleIcon } from '@phosphor-icons/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { download } from '../data/download';
import { useWorkspace } from '../data/useWorkspace';
import { usePeopleOf } from '../data/usePeople';
import { openPath } from '../model/items';
import { useLibraries } from '../data/useLibrary';
import { useSession } from '../server/session';
import { MarkSign, useMarkKinds } from '../spots/markKinds';
import type { ShownSpot } from '../data/spots';
import { Menu } from '../ui/Menu';
import { whenGroup, whenWords } from '../model/time';
import { FollowUpLine } from './FollowUpLine';
import { useFollowUps, useTick } from './useFollowUps';

type State = 'open' | 'done' | 'all';
type Grouping = 'page' | 'kind' | 'age';

interface Filter {
  kind: string;
  state: State;
  place: string;
  tag: string;
  person: string;
  age: string;
  /** Of all, asked of me, or put there by me. */
  whose: string;
}

const everything: Filter = { kind: '', state: 'open', place: '', tag: '', person: '', age: '', whose: '' };
const dayMilliseconds = 86_400_000;

interface Kept {
  filter: Filter;
  grouping: Grouping;
}

/** What the person looked for last; the usual where nothing is kept or it cannot be read. */
function readFilter(text: string | null): Kept {
  const usual: Kept = { filter: everything, grouping: 'page' };
  try {
    const kept = JSON.parse(text ?? '{}') as Partial<Kept>;
    const filter = { ...everything };
    for (const name of Object.keys(everything) as (keyof Filter)[]) {
      const value = kept.filter?.[name];
      if (typeof value === 'string') (filter as Record<string, string>)[name] = value;
    }
    return { filter, grouping: kept.grouping ?? usual.grouping };
  } catch {
    return usual;
  }
}
const ages = [
  { value: '', words: t`of any age` },
  { value: '7', words: t`older than a week` },
  { value: '30', words: t`older than a month` },
  { value: '-7', words: t`from the past week` },
];
const lineHeight = 76;
const headHeight = 62;

type Row = { head: ReactNode; key: string } | { mark: ShownSpot; key: string };

/** All open marks of all notebooks one may see, as the ink itself: by page, kind or age. */
export function FollowUpsScreen() {
  const { spaces, person } = useSession();
  const libraries = useLibraries();
  const people = usePeopleOf(spaces);
  const kinds = useMarkKinds();
  const key = `quill.follow-ups.${person.id}`;
  const [{ filter, grouping }, setKept] = useState(() => readFilter(localStorage.getItem(key)));
  const keep = (changed: Kept) => {
    localStorage.setItem(key, JSON.stringify(changed));
    setKept(changed);
  };
  const setFilter = (changed: Filter) => keep({ filter: changed, grouping });
  const setGrouping = (changed: Grouping) => keep({ filter, grouping: changed });
  const { marks, refetch } = useFollowUps(filter.state !== 'open');
  const tick = useTick();
  const scroller = useRef<HTMLDivElement>(null);
  useKeptFocus(scroller, 'data-tick');
  const change = (changed: Partial<Filter>) => setFilter({ ...filter, ...changed });

  const inState = marks.filter((mark) =>
    filter.state === 'open' ? mark.isOpen : filter.state === 'done' ? mark.doneAt !== null : true,
  );
  const found = inState.filter(
    (mark) =>
      matches(mark, filter, (folder, space) => foldersWithin(libraries.get(space), folder)) &&
      hasTag(mark, filter.tag, libraries) &&
      (!filter.whose || (filter.whose === 'to' ? mark.person : mark.author) === person.id),
  );
  const counts = new Map<string, number>();
  for (const mark of inState) counts.set(mark.mark, (counts.get(mark.mark) ?? 0) + 1);
  const rows = useMemo(() => rowsOf(found, grouping, kinds), [found, grouping, kinds]);
  // oxlint-disable-next-line react/incompatible-library -- what it gives is used here only
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => ('head' in rows[i]! ? headHeight : lineHeight),
    overscan: 8,
  });
  const places = spaces.flatMap((space) => [
    { value: `${space.id}/`, words: space.name },
    ...[...(libraries.get(space.id)?.nodes.values() ?? [])]
      .filter((node) => node.kind === 'folder' && !node.inBin)
      .map((node) => ({ value: `${space.id}/${node.id}`, words: node.name })),
  ]);
  const tags = [...libraries.values()].flatMap((library) =>
    library.tags.map((tag) => ({ value: `${library.space}/${tag.id}`, words: tag.path })),
  );
  const workspace = useWorkspace();
  const takeOut = (kind: 'md' | 'csv') =>
    void download(workspace, {
      path: `/api/follow-ups.${kind}`,
      words: t`The list`,
      body: { all: filter.state !== 'open', ids: found.length < marks.length ? found.map((mark) => mark.id) : null },
    });
  const mayTick = (mark: ShownSpot) =>
    may(
      spaces.find((space) => space.id === mark.space),
      'Write',
    );

  return (
    <div className="flex h-full flex-col px-10 pt-6 max-sm:px-4" data-testid="follow-ups">
      <header className="border-b border-base-300 pb-3">
        <div className="flex items-end gap-2">
          <h1 className="grow text-[30px] leading-tight">
            {t`Follow-ups`}{' '}
            <span className="font-sans text-[15px] text-quiet" data-testid="follow-up-count">
              {found.length === 1 ? '1' : found.length}
            </span>
          </h1>
          <Menu
            label={t`Take them out as a file`}
            testId="follow-up-export"
            icon={<DownloadSimpleIcon size={22} weight="light" />}
            entries={[
              {
                label: t`As Markdown`,
                testId: 'export-markdown',
                icon: <DownloadSimpleIcon size={20} weight="light" />,
                onChoose: () => takeOut('md'),
              },
              {
                label: t`As CSV`,
                testId: 'export-csv',
                icon: <DownloadSimpleIcon size={20} weight="light" />,
                onChoose: () => takeOut('csv'),
              },
            ]}
          />
        </div>
        <div className="mt-2 flex flex-wrap items-center gap-2">
          {[...kinds.values()]
            .filter((kind) => counts.has(kind.id) || filter.kind === kind.id)
            .map((kind) => (
              <button
                key={kind.id}
                type="button"
                aria-pressed={filter.kind === kind.id}
                data-testid="filter-kind"
                data-name={kind.words}
                onClick={() => change({ kind: filter.kind === kind.id ? '' : kind.id })}
                className={`flex h-10 items-center gap-2 rounded-full border ps-2 pe-3.5 ${filter.kind === kind.id ? 'border-primary bg-base-200 font-semibold' : 'border-base-300'}`}
              >
                <MarkSign kind={kind} size={22} /> {kind.words}{' '}
                <span className="text-[13px] text-quiet">{counts.get(kind.id) ?? 0}</span>
              </button>
            ))}
          <span className="grow" />
          <Pick
            label={t`State`}
            value={filter.state}
            testId="filter-state"
            onPick={(state) => change({ state: state as State })}
            choices={[
              { value: 'open', words: t`open` },
              { value: 'done', words: t`ticked off` },
              { value: 'all', words: t`open or ticked off` },
            ]}
          />
          <Pick
            label={t`Where`}
            value={filter.place}
            testId="filter-place"
            onPick={(place) => change({ place })}
            choices={[{ value: '', words: t`everywhere` }, ...places]}
          />
          {tags.length > 0 && (
            <Pick
              label={t`Tag`}
              value={filter.tag}
              testId="filter-tag"
              onPick={(tag) => change({ tag })}
              choices={[{ value: '', words: t`with any tag` }, ...tags]}
            />
          )}
          <Pick
            label={t`Whose`}
            value={filter.whose}
            testId="filter-whose"
            onPick={(whose) => change({ whose })}
            choices={[
              { value: '', words: t`of all` },
              { value: 'to', words: t`to me` },
              { value: 'by', words: t`by me` },
            ]}
          />
          <Pick
            label={t`For whom`}
            value={filter.person}
            testId="filter-person"
            onPick={(person) => change({ person })}
            choices={[
              { value: '', words: t`for anybody` },
              ...[...people.values()].map((person) => ({
                value: person.id,
                words: t`for ${person.name.split(' ')[0]}`,
              })),
            ]}
          />
          <Pick
            label={t`Age`}
            value={filter.age}
            testId="filter-age"
            onPick={(age) => change({ age })}
            choices={ages}
          />
          <Pick
            label={t`Grouped by`}
            value={grouping}
            testId="group-by"
            onPick={(by) => setGrouping(by as Grouping)}
            choices={[
              { value: 'page', words: t`by page` },
              { value: 'kind', words: t`by kind` },
              { value: 'age', words: t`by age` },
            ]}
          />
        </div>
      </header>
      <div ref={scroller} className="min-h-0 grow overflow-y-auto pb-10">
        {found.length === 0 && (
          <p className="py-8 text-quiet" data-testid="empty">
            {marks.length === 0
              ? t`Nothing is open. Take up “Mark” beside a page and press where something is to be asked, done or looked up: it is gathered here.`
              : t`Nothing fits what you ask for.`}
          </p>
        )}
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const row = rows[item.index]!;
            return (
              <div
                key={row.key}
                data-index={item.index}
                ref={virtual.measureElement}
                className="absolute inset-x-0 top-0"
                style={{ transform: `translateY(${item.start}px)` }}
              >
                {'head' in row ? (
                  row.head
                ) : (
                  <FollowUpLine
                    mark={row.mark}
                    kind={kinds.get(row.mark.mark)}
                    width={380}
                    height={56}
                    about={aboutWords(row.mark, people, grouping)}
                    onTick={
                      mayTick(row.mark) && kinds.get(row.mark.mark)?.opens !== false
                        ? () => void tick(row.mark, row.mark.doneAt === null).then(refetch)
                        : undefined
                    }
                  />
                )}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

function aboutWords(mark: ShownSpot, people: ReturnType<typeof usePeopleOf>, grouping: Grouping): string {
  const name = (id: string | null) => people.get(id ?? '')?.name.split(' ')[0] ?? t`somebody`;
  const parts = [
    grouping === 'page' ? '' : t`${mark.notebookName}, page ${mark.pageNumber}`,
    mark.person ? t`for ${name(mark.person)}` : '',
    mark.doneAt
      ? mark.mark === 'ask'
        ? t`settled by ${name(mark.doneBy)} ${whenWords(mark.doneAt)}`
        : t`ticked off by ${name(mark.doneBy)} ${whenWords(mark.doneAt)}`
      : `${name(mark.author)}, ${whenWords(mark.createdAt)}`,
  ];
  return parts.filter(Boolean).join(', ');
}

function rowsOf(found: ShownSpot[], grouping: Grouping, kinds: ReturnType<typeof useMarkKinds>): Row[] {
  const keyOf = (mark: ShownSpot) =>
    grouping === 'page' ? mark.page : grouping === 'kind' ? mark.mark : whenGroup(mark.createdAt);
  const groups = new Map<string, ShownSpot[]>();
  for (const mark of found) groups.set(keyOf(mark), [...(groups.get(keyOf(mark)) ?? []), mark]);
  return [...groups].flatMap(([key, marks]) => [
    {
      key: `head ${key}`,
      head: (
        <Head
          mark={marks[0]!}
          grouping={grouping}
          words={grouping === 'kind' ? (kinds.get(key)?.words ?? t`Mark`) : key}
          count={marks.length}
        />
      ),
    },
    ...marks.map((mark) => ({ key: mark.id, mark })),
  ]);
}

function Head({ mark, grouping, words, count }: { mark: ShownSpot; grouping: Grouping; words: string; count: number }) {
  return (
    <h2 className="flex items-baseline gap-3 border-b border-base-300 pb-1.5 pt-6 text-[19px]">
      {grouping === 'page' ? (
        <>
          <Link to={openPath(mark.space, mark.notebook, mark.page)} className="hover:underline">
            {mark.notebookName}
          </Link>
          <span className="font-sans text-[14px] text-quiet">
            {t`page ${mark.pageNumber}`}
            {mark.pageTitle && `, ${mark.pageTitle}`}
          </span>
        </>
      ) : (
        <>
          {words} <span className="font-sans text-[14px] text-quiet">{count}</span>
        </>
      )}
    </h2>
  );
}

function Pick({
  label,
  value,
  choices,
  testId,
  onPick,
}: {
  label: string;
  value: string;
  choices: { value: string; words: string }[];
  testId: string;
  onPick: (value: string) => void;
}) {
  return (
    <select
      aria-label={label}
      data-testid={testId}
      className={`select h-10 w-auto min-w-0 max-w-44 border-base-300 bg-base-100 ${value === choices[0]!.value ? '' : 'font-semibold'}`}
      value={value}
      onChange={(event) => onPick(event.target.value)}
    >
      {choices.map((choice) => (
        <option key={choice.value} value={choice.value}>
          {choice.words}
        </option>
      ))}
    </select>
  );
}

function matches(mark: ShownSpot, filter: Filter, within: (folder: string, space: string) => Set<string>): boolean {
  if (filter.kind && mark.mark !== filter.kind) return false;
  if (filter.person && mark.person !== filter.person) return false;
  if (filter.place) {
    const [space, folder] = filter.place.split('/');
    if (mark.space !== space || (folder && !within(folder, space).has(mark.folder))) return false;
  }
  const age = (Date.now() - mark.createdAt) / dayMilliseconds;
  const days = Number(filter.age);
  return !filter.age || (days > 0 ? age > days : age <= -days);
}

function hasTag(mark: ShownSpot, wanted: string, libraries: ReturnType<typeof useLibraries>): boolean {
  if (!wanted) return true;
  const [space, id] = wanted.split('/');
  const library = libraries.get(mark.space);
  if (mark.space !== space || !library) return false;
  // A parent tag includes those nested in it.
  const path = library.tags.find((tag) => tag.id === id)?.path ?? '';
  return library.tagsOf(mark.tags).some((tag) => tag.path === path || tag.path.startsWith(`${path}/`));
}

/** A folder and all folders inside it. */
function foldersWithin(
  library: ReturnType<typeof useLibraries> extends Map<string, infer L> ? L | undefined : never,
  folder: string,
  into = new Set<string>(),
): Set<string> {
  into.add(folder);
  for (const inner of library?.inside(folder, 'folder') ?? []) foldersWithin(library, inner.id, into);
  return into;
}
