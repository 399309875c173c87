import { useKeptFocus } from '../ui/useKeptFocus';
import { Button } from '../ui/Button';
import { carryWords } from '../ui/carryWords';
import { plural, t } from '@lingui/core/macro';
import { DndContext, MouseSensor, pointerWithin, TouchSensor, useSensor, useSensors } from '@dnd-kit/core';
import { FilePlusIcon, FolderPlusIcon } from '@phosphor-icons/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { properties, sentenceOf } from '../core/runtime';
import { NameDialog } from '../ui/naming';
import { type NotebookEntry, root } from '../model/items';
import { useRoving } from '../ui/useRoving';
import { doing, useAct } from '../data/doing';
import { TagDialog } from '../tags/TagDialog';
import type { Library } from '../data/Library';
import { useSelection } from '../ui/useChosen';
import { setSpotOn } from '../data/spots';
import type { PlacedSpot } from '../data/useNotebookSpots';
import { useWorkspace } from '../data/useWorkspace';
import { type Asking, entryMenu, headingMenu } from './contentsMenus';
import { SectionColour } from './SectionColour';
import { useEntryActs } from './useEntryActs';
import { EndTarget, EntryRow, HeadingEntry } from './ContentsEntry';
import { movedTo } from '../moving/movedTo';
import { PlaceDialog } from '../moving/PlaceDialog';
import type { OpenNotebook } from '../data/openNotebooks';
import { mayTouch } from '../data/rights';
import { useSpaceOf } from '../data/useShared';
import { useSession } from '../server/session';
import { say } from '../ui/saying';
import type { Notebook } from '../data/useNotebook';

/** A row is so high, and a heading below it; pixels. */
const rowHeight = 40;
const edge = 8;

interface ContentsProps {
  at: OpenNotebook;
  notebook: Notebook;
  library: Library;
  mayWrite: boolean;
  headings: PlacedSpot[];
  onGo: (page: string) => void;
  onHeading: (heading: PlacedSpot) => void;
  onBeside: (page: string) => void;
  onPaper: (ids: string[]) => void;
}

/** The contents: sections, pages and the headings taken from them, to go to, name in place, put elsewhere, copy and bin. */
export function Contents({
  at,
  notebook,
  library,
  mayWrite,
  headings,
  onGo,
  onHeading,
  onBeside,
  onPaper,
}: ContentsProps) {
  const workspace = useWorkspace();
  const act = useAct();
  const [renaming, setRenaming] = useState<string>();
  const [asking, setAsking] = useState<Asking>();
  const selection = useSelection(notebook.entries.map((entry) => entry.id));
  const headingsOf = useMemo(() => {
    const byPage = new Map<string, PlacedSpot[]>();
    for (const heading of headings) byPage.set(heading.page, [...(byPage.get(heading.page) ?? []), heading]);
    return byPage;
  }, [headings]);
  const scroller = useRef<HTMLUListElement>(null);
  useKeptFocus(scroller, 'data-entry');
  useRoving(scroller, {
    items: '[data-testid=entry-press], [data-testid=contents-heading]',
    way: 'tree',
    first: '[aria-current=page] [data-testid=entry-press]',
    onEdge: (last) => virtual.scrollToIndex(last ? notebook.entries.length - 1 : 0),
  });
  // Only what is seen of a long notebook is there.
  // oxlint-disable-next-line react/incompatible-library -- what it gives is used here only
  const virtual = useVirtualizer({
    count: notebook.entries.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => rowHeight * (1 + (headingsOf.get(notebook.entries[i]!.id)?.length ?? 0)),
    getItemKey: (i) => notebook.entries[i]!.id,
    paddingStart: edge,
    paddingEnd: edge,
    overscan: 12,
  });
  useEffect(() => virtual.measure(), [virtual, headingsOf, notebook.entries]);
  // The page that is open is in sight, also when it was come to by another way.
  const here = notebook.entries.findIndex((entry) => entry.id === at.page);
  useEffect(() => {
    if (here >= 0) virtual.scrollToIndex(here, { align: 'auto' });
  }, [virtual, at.page, here]);
  const rows = virtual.getVirtualItems();
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 8 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 8 } }),
  );
  const space = useSpaceOf(at.space, at.notebook);
  const { person } = useSession();
  const mayTakeAway = (id: string) => mayTouch(space, notebook.find(id)?.createdBy === person.id);
  const acts = useEntryActs(notebook, selection.chosen);
  const onKey = (event: KeyboardEvent, entry: NotebookEntry) => {
    if (!mayWrite) return;
    if (event.key === 'F2') setRenaming(entry.id);
    else if (event.key === 'Delete') {
      const ids = acts.heads(acts.chosenOr(entry.id));
      if (ids.every(mayTakeAway)) acts.bin(ids);
      else say(t`In this group one bins only what one made.`);
    } else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown'))
      acts.step(entry, event.key === 'ArrowUp' ? -1 : 1);
    else if (event.altKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight'))
      acts.nest(entry, event.key === 'ArrowRight');
    else return;
    event.preventDefault();
  };
  const given = {
    at,
    notebook,
    library,
    acts,
    ask: setAsking,
    rename: setRenaming,
    onGo,
    onBeside,
    onPaper,
    isGuest: space?.isGuest ?? false,
    mayTakeAway,
  };
  const tagged = asking?.what === 'tags' ? (notebook.find(asking.entry.id) ?? asking.entry) : undefined;
  return (
    <>
      <DndContext sensors={sensors} accessibility={carryWords} collisionDetection={pointerWithin} onDragEnd={acts.drop}>
        <ul
          role="tree"
          aria-label={t`Sections and pages`}
          aria-multiselectable="true"
          ref={scroller}
          className="min-h-0 grow overflow-y-auto"
        >
          <li role="none" style={{ height: rows[0]?.start ?? edge }} />
          {rows.map(({ index }) => {
            const entry = notebook.entries[index]!;
            return (
              <EntryRow
                key={entry.id}
                entry={entry}
                isHere={entry.id === at.page}
                isChosen={selection.chosen.has(entry.id)}
                mayWrite={mayWrite}
                tags={library.tagsOf(entry.tags).map((tag) => tag.path)}
                renaming={renaming === entry.id}
                menu={mayWrite ? entryMenu(entry, given) : []}
                onKey={(event) => onKey(event, entry)}
                onPress={(event) => {
                  if (event.shiftKey || event.ctrlKey || event.metaKey)
                    selection.press(entry.id, { shift: event.shiftKey, more: event.ctrlKey || event.metaKey });
                  else {
                    selection.clear();
                    if (entry.kind === 'page') onGo(entry.id);
                  }
                }}
                below={headingsOf.get(entry.id)?.map((heading) => (
                  <HeadingEntry
                    key={heading.id}
                    space={at.space}
                    heading={heading}
                    paper={entry.paper}
                    depth={entry.depth}
                    menu={
                      mayWrite
                        ? headingMenu(heading, setAsking, (fields) =>
                            setSpotOn(workspace, at.space, heading.page, heading.id, fields),
                          )
                        : []
                    }
                    onPress={() => onHeading(heading)}
                  />
                ))}
                onRename={async (title) => {
                  if (!title && entry.kind === 'section') return t`A section needs a name.`;
                  try {
                    await doing(workspace, title ? t`It is “${title}” now.` : t`The title is taken away.`, () =>
                      notebook.set(entry.id, properties.name, title),
                    );
                    return '';
                  } catch (problem) {
                    return sentenceOf(problem);
                  }
                }}
                onRenameEnd={() => setRenaming(undefined)}
              />
            );
          })}
          <li role="none" style={{ height: virtual.getTotalSize() - (rows.at(-1)?.end ?? edge) }} />
          <EndTarget />
        </ul>
      </DndContext>
      {mayWrite && (
        <div className="flex shrink-0 gap-2 border-t border-base-300 p-2.5">
          <Button
            className="grow"
            data-testid="new-section"
            onClick={() => setRenaming(notebook.addSection(root, t`New section`))}
          >
            <FolderPlusIcon size={18} weight="light" /> {t`Section`}
          </Button>
          <Button
            className="grow"
            data-testid="new-page"
            onClick={() =>
              onGo(
                notebook.addPage(
                  notebook.sectionOf(at.page)?.id ?? root,
                  '',
                  notebook.paperOf(at.page, library.find(at.notebook)?.paper),
                ),
              )
            }
          >
            <FilePlusIcon size={18} weight="light" /> {t`Page`}
          </Button>
        </div>
      )}
      {tagged && (
        <TagDialog
          title={t`Tags of “${tagged.title || t`page ${tagged.number}`}”`}
          library={library}
          carried={library.tagsOf(tagged.tags)}
          onSet={(tag, on) =>
            (on ? [tag] : (library.tagsOf([tag])[0]?.ids ?? [tag])).forEach((id) => notebook.setTag(tagged.id, id, on))
          }
          onClose={() => setAsking(undefined)}
        />
      )}
      {asking?.what === 'colour' && (
        <SectionColour
          entry={asking.entry}
          onConfirm={(colour) =>
            act(t`Its colour is another.`, () => notebook.set(asking.entry.id, properties.colour, colour))
          }
          onClose={() => setAsking(undefined)}
        />
      )}
      {asking?.what === 'words' && (
        <NameDialog
          title={t`Words for the heading`}
          confirm={t`Use these words`}
          name={asking.heading.title ?? ''}
          onConfirm={(title) =>
            setSpotOn(workspace, at.space, asking.heading.page, asking.heading.id, { title: title.trim() })
          }
          onClose={() => setAsking(undefined)}
        />
      )}
      {asking?.what === 'move' && (
        <PlaceDialog
          title={plural(asking.ids.length, { one: 'Move to', other: 'Move # things to' })}
          confirm={t`Move here`}
          space={at.space}
          notebook={at.notebook}
          without={asking.ids}
          onClose={() => setAsking(undefined)}
          onPlace={(place) => movedTo(notebook, asking.ids, place)}
        />
      )}
    </>
  );
}
