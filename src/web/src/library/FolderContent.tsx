import { may } from '../data/rights';
import { useDropped } from '../ui/useDropped';
import { useKeptFocus } from '../ui/useKeptFocus';
import { t } from '@lingui/core/macro';
import { type KeyboardEvent, type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { say } from '../ui/saying';
import { offer } from '../data/bringing';
import { useAct } from '../data/doing';
import { properties } from '../core/runtime';
import { usePeopleOf } from '../data/usePeople';
import { lastPageBesidePath } from '../data/openNotebooks';
import { type Space, useSession } from '../server/session';
import { useRoving } from '../ui/useRoving';
import { ContentHeader } from './ContentHeader';
import { ContentDialogs } from './ContentDialogs';
import { both, type Filter, filterOf, inLibrary, isChosen, noFilter, ruleOf } from './filter';
import { FilterBar } from './FilterBar';
import { type Asking, itemMenu } from './itemMenu';
import { grouped, sorted } from '../data/items';
import { ItemList } from './ItemList';
import type { ItemProps } from './ItemParts';
import { FolderTile } from './ItemShapes';
import type { Place } from './LibrarySide';
import { type Item, root } from '../model/items';
import { listKey } from './listKeys';
import { placeEntries } from './placeMenu';
import { placeOf, type ShownPlace } from './places';
import { SelectionBar } from './SelectionBar';
import { useEntries } from '../data/useEntries';
import { useItemActions } from './useItemActions';
import type { Library } from '../data/Library';
import { useLetterKeys, usePersonal } from '../data/usePersonal';
import { useSelection } from '../ui/useChosen';
import { useLocksOf, useSummaries } from '../data/useShelf';
import { usualView, viewTarget } from '../model/libraryView';
import { numberWords } from '../words/language';

interface FolderContentProps {
  at: Place;
  space?: Space;
  libraries: Map<string, Library>;
  onNewFolder: (space: string) => void;
  /** What stands before the title. */
  lead: ReactNode;
}

/** What lies in a folder, a list or under a lens: sorted, grouped, narrowed down and shown as the person wants it there. */
export function FolderContent({ at, space, libraries, onNewFolder, lead }: FolderContentProps) {
  const { spaces, person } = useSession();
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const summaries = useSummaries();
  const personal = usePersonal();
  const letters = useLetterKeys();
  const actions = useItemActions();
  const act = useAct();
  const people = usePeopleOf(spaces);
  const locks = useLocksOf(spaces);
  const [scroller, setScroller] = useState<HTMLElement | null>(null);
  const [filter, setFilter] = useState<Filter>(() =>
    search.get('tag') ? { ...noFilter, tags: { [search.get('tag')!]: 'any' } } : noFilter,
  );
  const [filtering, setFiltering] = useState(isChosen(filter));
  const [asking, setAsking] = useState<Asking | { what: 'newLens' | 'lens' } | undefined>(
    search.get('new') ? { what: 'newNotebook' } : undefined,
  );
  useEffect(() => {
    // It is asked once; the address is that of the folder.
    if (search.has('new')) setSearch({}, { replace: true });
  }, []);
  const [renaming, setRenaming] = useState<string>();

  const target = viewTarget(at.space, at.place);
  const view = personal?.view(target) ?? usualView;
  const place = useMemo(
    () => placeOf(at, libraries, spaces, summaries, personal, person.id, view),
    [at.space, at.place, libraries, spaces, summaries, personal, person.id, view],
  );
  const narrowed = isChosen(filter);
  // Narrowing down asks within what stands here, and never finds more; a lens shows its own question, to be changed.
  const rules = narrowed
    ? narrowing(place, filter)
    : place.rule === undefined
      ? undefined
      : place.libraries.map(() => place.rule!);
  const asked = useEntries(place.libraries, rules, view, summaries, personal?.stars ?? noStars);
  const loose = useMemo(
    () => (narrowed ? within(place, asked?.items ?? []) : [...place.items, ...(asked?.items ?? [])]),
    [narrowed, place, asked],
  );
  const items = useMemo(
    () => (place.keepsOrder && !narrowed ? loose : sorted(loose, view)),
    [loose, view, place.keepsOrder, narrowed],
  );
  const groups = useMemo(() => grouped(items, view, (id) => people.get(id)?.name), [items, view, people]);
  const folders = narrowed ? [] : place.folders;
  const order = useMemo(() => [...folders, ...items].map((item) => item.id), [folders, items]);
  const selection = useSelection(order);
  const chosen = [...folders, ...items].filter((item) => selection.chosen.has(item.id));
  const mayWrite = space !== undefined && may(space, 'Write');
  useDropped(scroller, mayWrite && !place.lens && place.libraries.length === 1, (files) => {
    offer(files);
    void navigate(`/bring/${place.libraries[0]!.space}${place.node ? `/${place.node.id}` : ''}`);
  });

  /** Folders are put in order wherever their own order is shown, other things where all of it is seen. */
  const siblings = (item: Item): Item[] | undefined =>
    view.sort !== 'own' || narrowed
      ? undefined
      : item.kind === 'folder'
        ? folders
        : view.group === 'none' && !view.deep
          ? items
          : undefined;

  useEffect(() => {
    const escape = (event: globalThis.KeyboardEvent) => event.key === 'Escape' && selection.clear();
    addEventListener('keydown', escape);
    return () => removeEventListener('keydown', escape);
  }, [selection]);

  if (!personal || !actions) return null;
  const menu = itemMenu({
    actions,
    ask: setAsking,
    rename: setRenaming,
    go: (path) => void navigate(path),
    besidePath: lastPageBesidePath,
    siblings,
  });
  const ordered = view.sort === 'own' && view.group === 'none' && !view.deep && !narrowed;
  const propsOf = (item: Item): ItemProps => ({
    item,
    selection,
    menu,
    people,
    isStarred: actions.isStarred(item),
    isLocked: locks.some(
      (lock) => lock.space === item.space && lock.notebook === item.notebook && lock.openUntil === null,
    ),
    mayWrite: actions.mayWrite(item),
    ...(item.folder !== at.place && item.kind !== 'folder'
      ? ({
          place:
            actions.library(item).find(item.folder)?.name ??
            (space && item.folder === root ? undefined : spaces.find((one) => one.id === item.space)?.name),
        } as { place?: string })
      : {}),
    size: view.size,
    isMarked: search.get('show') === item.id,
    renaming: renaming === item.id,
    onRename: (name) => actions.rename(item, name),
    onRenameEnd: () => setRenaming(undefined),
    ordered,
    dragIds: selection.chosen.has(item.id)
      ? chosen.filter((one) => one.space === item.space).map((one) => one.id)
      : [item.id],
  });

  useKeptFocus(scroller, 'data-item');
  const tiles = useRef<HTMLDivElement>(null);
  useRoving(tiles, { items: '[data-item], button' });
  const onKey = (event: KeyboardEvent, item: Item) =>
    listKey(event, item, {
      siblings,
      chosen,
      selection,
      actions,
      rename: setRenaming,
      ask: setAsking,
      letters,
    });

  return (
    <>
      <div
        ref={setScroller}
        className="min-h-0 grow overflow-y-auto px-[30px] pb-24 pt-6 max-lg:px-5 max-lg:pt-3 max-sm:px-4 max-sm:pt-1.5 [@media(max-height:820px)]:pt-3"
      >
        <ContentHeader
          lead={lead}
          place={place}
          view={view}
          onView={(changed) => personal.setView(target, changed)}
          filtering={filtering}
          onFilter={
            place.libraries.length > 0
              ? (on) => {
                  setFiltering(on);
                  // A lens shows the question it asks, so that it can be changed.
                  setFilter(on && place.lens ? (filterOf(place.rule ?? '') ?? noFilter) : noFilter);
                }
              : undefined
          }
          selection={selection}
          mayWrite={mayWrite}
          menu={placeEntries(place, menu, {
            space,
            mayWrite,
            ask: setAsking,
            go: (path) => void navigate(path),
            onNewFolder,
          })}
          onNewNotebook={() => setAsking({ what: 'newNotebook' })}
        />
        {filtering && (
          <FilterBar
            libraries={place.libraries}
            people={[...people.values()]}
            filter={filter}
            {...(asked && narrowed ? { found: asked.total > asked.items.length ? asked.total : loose.length } : {})}
            onFilter={setFilter}
            onSave={place.libraries.length === 1 ? saveLens : undefined}
            saveWords={place.lens ? t`Keep this as the lens` : t`Save as a lens`}
          />
        )}
        {asked?.fromDevice && (
          <p className="pt-3 text-quiet">{t`Without a connection: found in what this device holds.`}</p>
        )}
        {asked && asked.total > asked.items.length && (
          <p className="pt-3 text-quiet">
            {asked.total >= mostCounted
              ? t`The first ${asked.items.length} of more than ${numberWords(mostCounted)}.`
              : t`The first ${asked.items.length} of ${asked.total}.`}
          </p>
        )}
        {place.note && <p className="pt-3 text-quiet">{place.note}</p>}
        {folders.length > 0 && (
          <div
            role="presentation"
            onKeyDown={(event) => {
              const id = (event.target as HTMLElement).closest<HTMLElement>('[data-item]')?.dataset.item;
              const folder = folders.find((one) => one.id === id);
              if (folder) onKey(event, folder);
            }}
          >
            <div ref={tiles} className="flex flex-wrap gap-2 pb-1 pt-4" role="group" aria-label={t`Inner folders`}>
              {folders.map((folder) => (
                <FolderTile
                  key={folder.id}
                  {...propsOf(folder)}
                  count={actions.library(folder).notebookCount(folder.id)}
                />
              ))}
            </div>
          </div>
        )}
        {items.length === 0 && (narrowed || place.rule === undefined || asked) && (
          <Empty place={asked?.fromDevice ? notOnThisDevice : place.empty} narrowed={narrowed} />
        )}
        <ItemList
          groups={groups}
          view={view}
          scroller={scroller}
          {...(search.get('show') ? { show: search.get('show')! } : {})}
          propsOf={propsOf}
          onKey={onKey}
        />
      </div>
      {selection.choosing && (
        <SelectionBar selection={selection} entries={chosen.length > 0 ? menu.entries(chosen) : []} />
      )}
      {asking && (
        <ContentDialogs
          asking={asking}
          place={place}
          {...(space ? { space } : {})}
          actions={actions}
          personal={personal}
          rule={narrowed ? (rules?.[0] ?? '') : ''}
          onClose={() => setAsking(undefined)}
          onSavedLens={(library, lens) => {
            say(t`The lens is kept; it stands at the side.`);
            void navigate(`/library/${library}/lens-${lens}`);
          }}
        />
      )}
    </>
  );

  function saveLens() {
    if (!place.lens) {
      setAsking({ what: 'newLens' });
      return;
    }
    const { lens, keeper } = place;
    act(t`“${lens.name}” asks this now.`, () => keeper!.set(lens.id, properties.rule, ruleOf(filter)));
    setFiltering(false);
    setFilter(noFilter);
  }
}

/** In lists that no question says, as of what is opened often, what is found belongs to a notebook of the list. */
function within(place: ShownPlace, found: Item[]): Item[] {
  if (place.holds !== undefined || place.rule !== undefined) return found;
  const notebooks = new Set(place.items.map((item) => item.notebook));
  return found.filter((item) => notebooks.has(item.notebook));
}

/** The question to each library of a place for what stands in it and meets a filter. */
function narrowing(place: ShownPlace, filter: Filter): string[] {
  const from =
    place.libraries.find((library) => Object.keys(filter.tags).every((id) => library.tagsOf([id]).length > 0)) ??
    place.libraries[0]!;
  return place.libraries.map((library) => {
    const rule = ruleOf(inLibrary(filter, from, library));
    return place.lens ? rule : both(place.holds ?? place.rule, rule);
  });
}

const noStars = new Set<string>();

/** The server counts up to here. */
const mostCounted = 10_000;

/** Of what this device does not hold it cannot tell. */
const notOnThisDevice = {
  title: t`Nothing of it is on this device`,
  words: t`Without a connection, only what was opened here can stand here. The rest comes with the connection.`,
};

function Empty({ place, narrowed }: { place: { title: string; words: string }; narrowed: boolean }) {
  return (
    <div className="py-14 text-center" data-testid="empty">
      <p className="font-title text-[19px]">{narrowed ? t`Nothing matches all of this` : place.title}</p>
      <p className="mt-1 text-quiet">
        {narrowed ? t`Take a tag out, or ask for any of them instead of all.` : place.words}
      </p>
    </div>
  );
}
