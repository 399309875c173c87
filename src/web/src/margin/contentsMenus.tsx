import { t } from '@lingui/core/macro';
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
import type { Library } from '../data/Library';
import type { OpenNotebook } from '../data/openNotebooks';
import type { PlacedSpot } from '../data/useNotebookSpots';
import type { Notebook } from '../data/useNotebook';
import { type NotebookEntry, openPath } from '../model/items';
import type { MenuEntry } from '../ui/Menu';
import { attempt } from '../ui/naming';
import { say } from '../ui/saying';
import type { EntryActs } from './useEntryActs';

/** What a menu of the contents asks to be shown. */
export type Asking =
  | { what: 'words'; heading: PlacedSpot }
  | { what: 'tags' | 'colour'; entry: NotebookEntry }
  | { what: 'move'; ids: string[] };

interface EntryMenu {
  at: OpenNotebook;
  notebook: Notebook;
  library: Library;
  acts: EntryActs;
  ask: (asking: Asking) => void;
  rename: (id: string) => void;
  onGo: (page: string) => void;
  onBeside: (page: string) => void;
  onPaper: (ids: string[]) => void;
  isGuest: boolean;
  /** Whether a section or page may be binned, or moved to another notebook. */
  mayTakeAway: (id: string) => boolean;
}

/** What can be done with a section or a page. */
export function entryMenu(
  entry: NotebookEntry,
  { at, notebook, library, acts, ask, rename, onGo, onBeside, onPaper, isGuest, mayTakeAway }: EntryMenu,
): MenuEntry[] {
  const { chosenOr, heads, bin, duplicate } = acts;
  const all: MenuEntry[] = [
    {
      label: t`Rename`,
      testId: 'entry-rename',
      icon: <PencilSimpleIcon size={20} weight="light" />,
      onChoose: () => rename(entry.id),
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
            onChoose: () => rename(notebook.addSection(entry.id, t`New section`)),
          },
          {
            label: t`Colour`,
            icon: <SwatchesIcon size={20} weight="light" />,
            onChoose: () => ask({ what: 'colour', entry }),
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
      onChoose: () => ask({ what: 'tags', entry }),
    },
    {
      label: t`Move`,
      testId: 'entry-move',
      icon: <ArrowBendUpRightIcon size={20} weight="light" />,
      onChoose: () => ask({ what: 'move', ids: heads(chosenOr(entry.id)) }),
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
  const mayTake = chosenOr(entry.id).every((id) => mayTakeAway(id));
  return all.filter(
    (one) =>
      (!isGuest || !outwards.has(one.testId ?? '')) &&
      (mayTake || !['entry-move', 'entry-bin'].includes(one.testId ?? '')),
  );
}

/** What needs the library around the notebook, which a guest has not. */
const outwards = new Set(['entry-tags', 'entry-move', 'entry-duplicate']);

/** What can be done with a heading taken from a page. */
export function headingMenu(
  heading: PlacedSpot,
  ask: (asking: Asking) => void,
  set: (fields: Record<string, string>) => Promise<unknown>,
): MenuEntry[] {
  const level = Number(heading.level ?? 1);
  return [
    {
      label: t`Words for it`,
      testId: 'heading-words',
      icon: <PencilSimpleIcon size={20} weight="light" />,
      onChoose: () => ask({ what: 'words', heading }),
    },
    ...(level < 4
      ? [
          {
            label: t`One level deeper`,
            testId: 'heading-deeper',
            icon: <CaretRightIcon size={20} weight="light" />,
            onChoose: () => void set({ level: String(level + 1) }),
          },
        ]
      : []),
    ...(level > 1
      ? [
          {
            label: t`One level up`,
            icon: <CaretLeftIcon size={20} weight="light" />,
            onChoose: () => void set({ level: String(level - 1) }),
          },
        ]
      : []),
    {
      label: t`Take it out of the contents`,
      testId: 'heading-remove',
      icon: <TrashIcon size={20} weight="light" />,
      onChoose: () => void set({ removed: '1' }),
    },
  ];
}
