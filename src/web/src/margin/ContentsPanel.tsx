import { useKeptFocus } from '../ui/useKeptFocus';
import { Button } from '../ui/Button';
import { carryWords } from '../ui/carryWords';
import { plural, t } from '@lingui/core/macro';
import {
  DndContext,
  type DragEndEvent,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  ArrowBendUpRightIcon,
  ArrowSquareOutIcon,
  CaretLeftIcon,
  CaretRightIcon,
  ColumnsIcon,
  CopyIcon,
  FileIcon,
  FilePlusIcon,
  FolderPlusIcon,
  PencilSimpleIcon,
  SwatchesIcon,
  TagIcon,
  TrashIcon,
} from '@phosphor-icons/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { properties, sentenceOf } from '../core/runtime';
import { ColourField } from '../ui/looks';
import { attempt, ConfirmDialog, NameDialog } from '../ui/naming';
import { type NotebookEntry, openPath, root } from '../model/items';
import { say } from '../ui/saying';
import { useRoving } from '../ui/useRoving';
import { doing, useAct } from '../data/doing';
import { TagDialog } from '../tags/TagDialog';
import type { Library } from '../data/Library';
import { useSelection } from '../ui/useChosen';
import type { MenuEntry } from '../ui/Menu';
import { setSpotOn } from '../data/spots';
import type { PlacedSpot } from '../data/useNotebookSpots';
import { useWorkspace } from '../data/useWorkspace';
import { EndTarget, EntryRow, HeadingEntry } from './ContentsEntry';
import { movedTo } from '../moving/movedTo';
import { PlaceDialog } from '../moving/PlaceDialog';
import type { OpenNotebook } from '../data/openNotebooks';
import type { Notebook } from '../data/useNotebook';

type Asking =
  | { what: 'words'; heading: PlacedSpot }
  | { what: 'tags' | 'colour'; entry: NotebookEntry }
  | { what: 'move'; ids: string[] };

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
  const chosenOr = (id: string) =>
    selection.chosen.has(id)
      ? notebook.entries.filter((entry) => selection.chosen.has(entry.id)).map((entry) => entry.id)
      : [id];
  /** What is chosen together with something it lies in moves along with that. */
  const heads = (ids: string[]) =>
    ids.filter((id) => !ids.some((other) => other !== id && notebook.isWithin(id, other)));

  const bin = (ids: string[]) => {
    act(plural(ids.length, { one: 'Put into the bin.', other: 'Put # things into the bin.' }), () =>
      ids.forEach((id) => notebook.toBin(id)),
    );
  };
  const duplicate = async (ids: string[]) => {
    let refused = '';
    for (const id of ids) refused ||= await notebook.duplicate(id);
    say(refused || t`Duplicated.`);
  };
  const drop = ({ active, over }: DragEndEvent) => {
    const [how, target = ''] = String(over?.id ?? '').split(' ');
    const entry = notebook.find(target);
    if (!how || (target && !entry)) return;
    const ids = heads(chosenOr(String(active.id))).filter((id) => id !== target);
    act(t`Moved.`, () => {
      for (const id of how === 'into' ? ids : ids.toReversed()) {
        const { kind } = notebook.find(id)!;
        if (how === 'into') notebook.place(id, kind, target || root, '');
        else notebook.place(id, kind, entry!.parent, target);
      }
    });
  };
  const step = (entry: NotebookEntry, by: number) => {
    const siblings = notebook.entries.filter((one) => one.parent === entry.parent);
    const index = siblings.indexOf(entry);
    const after = by > 0 ? siblings[index + 1]?.id : index > 0 ? (siblings[index - 2]?.id ?? 'first') : undefined;
    if (after) act(t`Moved.`, () => notebook.place(entry.id, entry.kind, entry.parent, after));
  };
  const nest = (entry: NotebookEntry, inwards: boolean) => {
    const siblings = notebook.entries.filter((one) => one.parent === entry.parent);
    const before = siblings[siblings.indexOf(entry) - 1];
    const parent = notebook.find(entry.parent);
    if (inwards && before) act(t`Moved.`, () => notebook.place(entry.id, entry.kind, before.id, ''));
    if (!inwards && parent) act(t`Moved.`, () => notebook.place(entry.id, entry.kind, parent.parent, parent.id));
  };
  const onKey = (event: KeyboardEvent, entry: NotebookEntry) => {
    if (!mayWrite) return;
    if (event.key === 'F2') setRenaming(entry.id);
    else if (event.key === 'Delete') bin(heads(chosenOr(entry.id)));
    else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown'))
      step(entry, event.key === 'ArrowUp' ? -1 : 1);
    else if (event.altKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight'))
      nest(entry, event.key === 'ArrowRight');
    else return;
    event.preventDefault();
  };
  const entriesOf = (entry: NotebookEntry): MenuEntry[] => [
    {
      label: t`Rename`,
      testId: 'entry-rename',
      icon: <PencilSimpleIcon size={20} weight="light" />,
      onChoose: () => setRenaming(entry.id),
    },
    ...(entry.kind === 'section'
      ? [
          {
            label: t`New page in it`,
            testId: 'entry-add-page',
            icon: <FilePlusIcon size={20} weight="light" />,
            onChoose: () =>
              onGo(notebook.addPage(entry.id, '', notebook.paperOf(entry.id, library.find(at.notebook)?.paper))),
          },
          {
            label: t`New section in it`,
            testId: 'entry-add-section',
            icon: <FolderPlusIcon size={20} weight="light" />,
            onChoose: () => setRenaming(notebook.addSection(entry.id, t`New section`)),
          },
          {
            label: t`Colour`,
            icon: <SwatchesIcon size={20} weight="light" />,
            onChoose: () => setAsking({ what: 'colour', entry }),
          },
        ]
      : [
          {
            label: t`New sub-page`,
            testId: 'entry-add-sub',
            icon: <FilePlusIcon size={20} weight="light" />,
            onChoose: () =>
              say(attempt(() => onGo(notebook.addPage(entry.id, '', notebook.paperOf(entry.id, entry.paper))))),
          },
        ]),
    {
      label: t`Paper`,
      testId: 'entry-paper',
      icon: <FileIcon size={20} weight="light" />,
      onChoose: () => onPaper(chosenOr(entry.id)),
    },
    {
      label: t`Tags`,
      testId: 'entry-tags',
      icon: <TagIcon size={20} weight="light" />,
      onChoose: () => setAsking({ what: 'tags', entry }),
    },
    {
      label: t`Move`,
      testId: 'entry-move',
      icon: <ArrowBendUpRightIcon size={20} weight="light" />,
      onChoose: () => setAsking({ what: 'move', ids: heads(chosenOr(entry.id)) }),
    },
    {
      label: t`Duplicate`,
      testId: 'entry-duplicate',
      icon: <CopyIcon size={20} weight="light" />,
      onChoose: () => void duplicate(heads(chosenOr(entry.id))),
    },
    ...(entry.kind === 'page'
      ? [
          {
            label: t`Open beside`,
            testId: 'entry-beside',
            icon: <ColumnsIcon size={20} weight="light" />,
            onChoose: () => onBeside(entry.id),
          },
          {
            label: t`Open in a new window`,
            icon: <ArrowSquareOutIcon size={20} weight="light" />,
            onChoose: () => void window.open(openPath(at.space, at.notebook, entry.id), '_blank', 'noopener'),
          },
        ]
      : []),
    {
      label: t`Put into the bin`,
      testId: 'entry-bin',
      icon: <TrashIcon size={20} weight="light" />,
      onChoose: () => bin(heads(chosenOr(entry.id))),
    },
  ];
  const headingEntries = (heading: PlacedSpot): MenuEntry[] => {
    const level = Number(heading.level ?? 1);
    return [
      {
        label: t`Words for it`,
        testId: 'heading-words',
        icon: <PencilSimpleIcon size={20} weight="light" />,
        onChoose: () => setAsking({ what: 'words', heading }),
      },
      ...(level < 4
        ? [
            {
              label: t`One level deeper`,
              testId: 'heading-deeper',
              icon: <CaretRightIcon size={20} weight="light" />,
              onChoose: () =>
                void setSpotOn(workspace, at.space, heading.page, heading.id, { level: String(level + 1) }),
            },
          ]
        : []),
      ...(level > 1
        ? [
            {
              label: t`One level up`,
              icon: <CaretLeftIcon size={20} weight="light" />,
              onChoose: () =>
                void setSpotOn(workspace, at.space, heading.page, heading.id, { level: String(level - 1) }),
            },
          ]
        : []),
      {
        label: t`Take it out of the contents`,
        testId: 'heading-remove',
        icon: <TrashIcon size={20} weight="light" />,
        onChoose: () => void setSpotOn(workspace, at.space, heading.page, heading.id, { removed: '1' }),
      },
    ];
  };
  const tagged = asking?.what === 'tags' ? (notebook.find(asking.entry.id) ?? asking.entry) : undefined;
  return (
    <>
      <DndContext sensors={sensors} accessibility={carryWords} collisionDetection={pointerWithin} onDragEnd={drop}>
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
                menu={mayWrite ? entriesOf(entry) : []}
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
                    menu={mayWrite ? headingEntries(heading) : []}
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

function SectionColour({
  entry,
  onConfirm,
  onClose,
}: {
  entry: NotebookEntry;
  onConfirm: (colour: string) => void;
  onClose: () => void;
}) {
  const [colour, setColour] = useState(entry.colour || 'spruce');
  return (
    <ConfirmDialog
      title={t`Colour of “${entry.title}”`}
      confirm={t`Use this colour`}
      onConfirm={() => onConfirm(colour)}
      onClose={onClose}
    >
      <ColourField value={colour} onChange={setColour} />
    </ConfirmDialog>
  );
}
