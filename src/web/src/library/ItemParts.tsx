import { thingsWords } from '../data/items';
import { plural, t } from '@lingui/core/macro';
import { useDraggable, useDroppable } from '@dnd-kit/core';
import { LockSimpleIcon, PushPinIcon, StarIcon } from '@phosphor-icons/react';
import { type MouseEvent, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { Member } from '../data/usePeople';
import { PagePicture } from '../pictures/PagePicture';
import { Avatar } from '../ui/Avatar';
import { Menu } from '../ui/Menu';
import { RenameField } from '../ui/RenameField';
import { useLecterns } from '../data/useLecterns';
import { useStandingIn } from '../data/useWhereabouts';
import { whenWords } from '../model/time';
import { DotsThreeIcon } from '@phosphor-icons/react';
import { Cover } from '../papers/Cover';
import type { ItemMenu } from './itemMenu';
import { type Item, openPath, thumbnailPath } from '../model/items';
import { TagChip } from '../tags/TagChip';
import type { Selection } from '../ui/useChosen';

/** What every way of showing an item is given. */
export interface ItemProps {
  item: Item;
  selection: Selection;
  menu: ItemMenu;
  isStarred: boolean;
  isLocked: boolean;
  mayWrite: boolean;
  /** Where it lies, when that is not the folder one looks at. */
  place?: string;
  people: Map<string, Member>;
  size: number;
  renaming: boolean;
  onRename: (name: string) => Promise<string>;
  onRenameEnd: () => void;
  /** Whether it is the one that was asked to be shown in its folder. */
  isMarked: boolean;
  /** Whether things can be dropped before it, to put them in an own order. */
  ordered: boolean;
  /** What is dragged along when it is chosen among others. */
  dragIds: string[];
}

export function pathTo(item: Item): string {
  if (item.kind === 'folder') return `/library/${item.space}/${item.id}`;
  return openPath(item.space, item.notebook, item.kind === 'page' ? item.id : '');
}

/** Being pressed with ctrl or shift, dragged, dropped before. */
export function useItemHandling({ item, selection, mayWrite, isMarked, ordered, dragIds }: ItemProps) {
  const isInner = item.kind === 'page' || item.kind === 'section';
  const drag = useDraggable({
    id: `item:${item.id}`,
    data: { space: item.space, ids: dragIds, name: dragIds.length > 1 ? thingsWords(dragIds.length) : item.title },
    disabled: !mayWrite || isInner,
  });
  const into = useDroppable({
    id: item.kind === 'folder' ? `tile:${item.space}:${item.id}` : `before:${item.space}:${item.id}`,
    disabled: !mayWrite || (item.kind !== 'folder' && !ordered),
  });
  const onClickCapture = (event: MouseEvent) => {
    const more = event.ctrlKey || event.metaKey || selection.choosing;
    if (!event.shiftKey && !more) return;
    // A menu, a star or a field in it works as always.
    if ((event.target as Element).closest('button, input')) return;
    event.preventDefault();
    event.stopPropagation();
    selection.press(item.id, { shift: event.shiftKey, more });
  };
  const isChosen = selection.chosen.has(item.id);
  return {
    isChosen,
    isMarked,
    isDragging: drag.isDragging,
    isOver: into.isOver,
    holder: {
      ref: (element: HTMLElement | null) => {
        drag.setNodeRef(element);
        into.setNodeRef(element);
      },
      'data-testid': item.kind === 'notebook' ? 'notebook-row' : `${item.kind}-row`,
      'data-name': item.title,
      'data-id': item.id,
      'data-chosen': isChosen || undefined,
      onClickCapture,
      ...drag.listeners,
    },
  };
}

/** The title, as a link; while it is renamed, as a field in place. */
export function Title({
  item,
  renaming,
  onRename,
  onRenameEnd,
  className,
  lines = 2,
  isStarred,
  isLocked,
}: ItemProps & { className: string; lines?: 1 | 2 }) {
  if (renaming)
    return (
      <RenameField
        name={item.title}
        label={t`New name of ${item.title}`}
        className={`h-9 ${className}`}
        onRename={onRename}
        onEnd={onRenameEnd}
      />
    );
  return (
    <span className={`flex items-baseline gap-1.5 ${className}`}>
      <Link
        to={pathTo(item)}
        draggable={false}
        data-item={item.id}
        data-testid="open-notebook"
        title={item.title}
        className={`min-w-0 [overflow-wrap:anywhere] hover:underline ${lines === 1 ? 'line-clamp-1' : 'line-clamp-2'}`}
      >
        {item.title}
      </Link>
      {item.pinned && (
        <PushPinIcon size={15} weight="fill" className="shrink-0 self-center text-accent" aria-label={t`Pinned`} />
      )}
      {isStarred && (
        <StarIcon size={15} weight="fill" className="shrink-0 self-center text-gold" aria-label={t`Starred`} />
      )}
      {isLocked && (
        <LockSimpleIcon size={15} weight="fill" className="shrink-0 self-center text-quiet" aria-label={t`Locked`} />
      )}
    </span>
  );
}

/** The box with which things are chosen; shown on hovering, and always while choosing. */
export function ChooseBox({ item, selection }: Pick<ItemProps, 'item' | 'selection'>) {
  return (
    <label
      className={`grid size-10 shrink-0 cursor-pointer place-items-center ${selection.choosing ? '' : 'opacity-0 focus-within:opacity-100 group-hover:opacity-100'}`}
      onPointerDown={(event) => event.stopPropagation()}
    >
      <input
        type="checkbox"
        className="checkbox checkbox-primary checkbox-sm"
        aria-label={t`Choose ${item.title}`}
        data-testid="choose"
        checked={selection.chosen.has(item.id)}
        onChange={() => {}}
        onClick={(event) => selection.press(item.id, { shift: event.shiftKey, more: true })}
      />
    </label>
  );
}

export function ItemMenuButton({ item, menu }: Pick<ItemProps, 'item' | 'menu'>) {
  return (
    <Menu
      label={t`More for ${item.title}`}
      testId="row-menu"
      icon={<DotsThreeIcon size={24} />}
      entries={menu.entries([item])}
    />
  );
}

export function Tags({ item }: { item: Item }) {
  if (item.tags.length === 0) return null;
  return (
    <p className="flex flex-wrap gap-1.5" data-testid="item-tags">
      {item.tags.map((tag) => (
        <TagChip key={tag.id} tag={tag} />
      ))}
    </p>
  );
}

export function Writers({ item, people, size = 28 }: Pick<ItemProps, 'item' | 'people'> & { size?: number }) {
  const writers = item.people.map((id) => people.get(id)).filter((person) => person !== undefined);
  if (writers.length === 0) return null;
  return (
    <span className="flex -space-x-1.5">
      {writers.slice(0, 4).map((writer) => (
        <Avatar key={writer.id} name={writer.name} colour={writer.colour} size={size} />
      ))}
    </span>
  );
}

/** What it is about, in one line: how many pages, which sections, where it lies. */
export function aboutWords(item: Item, place: string | undefined): string {
  const words: string[] = [];
  if (item.kind === 'notebook')
    words.push(item.summary ? plural(item.summary.pageCount, { one: '# page', other: '# pages' }) : 'new');
  if (item.kind === 'page') words.push(t`page ${item.number} of ${item.notebookName}`);
  if (item.kind === 'section') words.push(t`section of ${item.notebookName}`);
  if (item.summary?.sections.length) words.push(item.summary.sections.join(', '));
  if (place) words.push(place);
  return words.join(' · ');
}

/** Who has a notebook open at this moment; else when it was written in last. */
export function When({ item, people }: Pick<ItemProps, 'item' | 'people'>): ReactNode {
  const here = useStandingIn(item.kind === 'notebook' ? item.id : '').flatMap(({ person }) => people.get(person) ?? []);
  const lectern = useLecterns().find((one) => item.kind === 'notebook' && one.notebook === item.id);
  const leader = lectern && people.get(lectern.leader);
  if (here.length > 0)
    return (
      <span className="flex min-w-0 items-center gap-1.5 text-[13px] text-primary" data-testid="here-now">
        <span aria-hidden="true" className="size-2 shrink-0 rounded-full bg-accent" />
        <span className="truncate">
          {leader
            ? t`${leader.name.split(' ')[0]} teaches here now`
            : t`${here.map((person) => person.name.split(' ')[0]).join(', ')} here now`}
        </span>
      </span>
    );
  return item.writtenAt ? (
    <span className="whitespace-nowrap text-[13px] text-quiet">{whenWords(item.writtenAt)}</span>
  ) : null;
}

/** A notebook's cover, a page's picture, or a folder's bar. */
export function Face({ item, width }: { item: Item; width: number }) {
  if (item.kind === 'page') {
    return (
      <PagePicture
        address={thumbnailPath(item.space, item)}
        alt={t`Page ${item.number} of ${item.notebookName}`}
        width={width}
        height={width * 1.36}
        fit="object-cover object-top"
        className="shrink-0"
      />
    );
  }
  return (
    <Cover node={item.node ?? { name: item.title, colour: 'spruce', cover: 'dots' }} width={width} space={item.space} />
  );
}
