import { may } from '../data/rights';
import { SignButton } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { useDraggable, useDroppable } from '@dnd-kit/core';
import { CaretDownIcon, CaretRightIcon, PlusIcon } from '@phosphor-icons/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Space } from '../server/session';
import { NodeIcon } from '../ui/NodeIcon';
import { useRoving } from '../ui/useRoving';
import { type LibraryNode, root } from '../model/items';
import { orderedFolders } from '../data/items';
import { fillOf } from '../model/colours';
import type { Library } from '../data/Library';
import { useLibrary } from '../data/useLibrary';
import { usePersonal } from '../data/usePersonal';
import { viewTarget } from '../model/libraryView';

const rowHeight = 36;
/** How long something is held over a folder before it opens. */
const openAfterMilliseconds = 600;

interface Shown {
  folder: LibraryNode;
  depth: number;
  branches: boolean;
}

/** The folders of one space. They can be unfolded, dragged and dropped on; held over, a folder opens. Only those on the screen are drawn. */
export function FolderTree({
  space,
  chosen,
  scroller,
  made,
  where,
  onNewFolder,
}: {
  space: Space;
  chosen?: string;
  scroller: HTMLElement | null;
  /** The folder made last: the way to it is unfolded, and it is in sight. */
  made?: string;
  /** What a new folder is made in. */
  where: string;
  onNewFolder: () => void;
}) {
  const library = useLibrary(space.id);
  const mayWrite = may(space, 'Write');
  const { setNodeRef, isOver } = useDroppable({ id: `folder:${space.id}:${root}`, disabled: !mayWrite });
  const [unfolded, toggle, open] = useUnfolded(space.id, library, chosen, made);
  const personal = usePersonal();
  const shown = useMemo(
    () =>
      library
        ? flatten(library, unfolded, (folder) => personal?.view(viewTarget(space.id, folder)).sort === 'own')
        : [],
    [library, unfolded, personal, space.id],
  );
  // oxlint-disable-next-line react/incompatible-library
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller,
    estimateSize: () => rowHeight,
    overscan: 12,
    getItemKey: (i) => shown[i]!.folder.id,
  });
  const tree = useRef<HTMLUListElement>(null);
  useRoving(tree, {
    items: '[data-testid=folder]',
    way: 'tree',
    first: '[aria-current=page]',
    onToggle: (item) => toggle(item.dataset.id!),
    onEdge: (last) => virtual.scrollToIndex(last ? shown.length - 1 : 0),
  });
  const madeAt = shown.findIndex((row) => row.folder.id === made);
  useEffect(() => {
    if (madeAt >= 0) virtual.scrollToIndex(madeAt);
  }, [madeAt]);
  return (
    <section className="mb-4" aria-label={t`Folders of ${space.name}`}>
      <div
        ref={setNodeRef}
        className={`flex items-center rounded-md ps-2 ${isOver ? 'outline-2 outline-primary' : ''} ${chosen === root ? 'bg-base-200' : ''}`}
      >
        <Link
          to={`/library/${space.id}`}
          aria-current={chosen === root ? 'page' : undefined}
          className="min-w-0 grow py-2 font-title text-[17px] leading-tight font-medium [overflow-wrap:anywhere]"
        >
          {space.name}
        </Link>
        {mayWrite && (
          <SignButton
            label={t`New folder in ${where}`}
            data-testid={`new-folder-${space.personal ? 'personal' : 'group'}`}
            onClick={onNewFolder}
          >
            <PlusIcon size={18} />
          </SignButton>
        )}
      </div>
      {library && (
        <ul
          ref={tree}
          role="tree"
          aria-label={space.name}
          className="relative"
          style={{ height: virtual.getTotalSize() }}
        >
          {virtual.getVirtualItems().map(({ index, key, start }) => {
            const row = shown[index]!;
            return (
              <li
                key={key}
                role="treeitem"
                aria-level={row.depth + 1}
                aria-expanded={row.branches ? unfolded.has(row.folder.id) : undefined}
                aria-selected={chosen === row.folder.id}
                className="absolute inset-x-0"
                style={{ top: start, height: rowHeight }}
              >
                <FolderRow
                  {...row}
                  space={space}
                  count={library.notebookCount(row.folder.id)}
                  isChosen={chosen === row.folder.id}
                  isOpen={unfolded.has(row.folder.id)}
                  onToggle={() => toggle(row.folder.id)}
                  onHeldOver={() => open(row.folder.id)}
                />
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}

/** @param isOwn Whether a folder is shown in the order that its things were put in. */
function flatten(library: Library, unfolded: Set<string>, isOwn: (folder: string) => boolean): Shown[] {
  const shown: Shown[] = [];
  const visit = (parent: string, depth: number) => {
    for (const folder of orderedFolders(library.inside(parent, 'folder'), isOwn(parent))) {
      const branches = library.inside(folder.id, 'folder').length > 0;
      shown.push({ folder, depth, branches });
      if (branches && unfolded.has(folder.id)) visit(folder.id, depth + 1);
    }
  };
  visit(root, 0);
  return shown;
}

/** Which folders are unfolded, remembered on this device; at first those at the head of a small library, and always the way to the chosen one. */
function useUnfolded(
  space: string,
  library: Library | undefined,
  chosen: string | undefined,
  made: string | undefined,
): [Set<string>, (id: string) => void, (id: string) => void] {
  const key = `quill.unfolded.${space}`;
  const [changed, setChanged] = useState<Record<string, boolean>>(
    () => JSON.parse(localStorage.getItem(key) ?? '{}') as Record<string, boolean>,
  );
  const unfolded = useMemo(() => {
    const open = new Set(Object.keys(changed).filter((id) => changed[id]));
    if (library) {
      const heads = library.inside(root, 'folder');
      if (heads.length <= 20) for (const head of heads) if (changed[head.id] !== false) open.add(head.id);
    }
    return open;
  }, [changed, library]);
  const put = (id: string, value: boolean) =>
    setChanged((before) => {
      const after = { ...before, [id]: value };
      localStorage.setItem(key, JSON.stringify(after));
      return after;
    });
  useEffect(() => {
    if (!library || !chosen) return;
    for (const folder of library.pathOf(chosen)) if (!unfolded.has(folder.id)) put(folder.id, true);
    // Only choosing a folder unfolds the way to it; what the person folds afterwards stays folded.
  }, [chosen]);
  useEffect(() => {
    if (!library || !made) return;
    for (const folder of library.pathOf(made)) if (!unfolded.has(folder.id)) put(folder.id, true);
  }, [made, library?.find(made ?? '') === undefined]);
  return [unfolded, (id) => put(id, !unfolded.has(id)), (id) => put(id, true)];
}

interface FolderRowProps extends Shown {
  space: Space;
  count: number;
  isChosen: boolean;
  isOpen: boolean;
  onToggle: () => void;
  onHeldOver: () => void;
}

function FolderRow({ folder, depth, branches, space, count, isChosen, isOpen, onToggle, onHeldOver }: FolderRowProps) {
  const mayWrite = may(space, 'Write');
  const drop = useDroppable({ id: `folder:${space.id}:${folder.id}`, disabled: !mayWrite });
  const drag = useDraggable({
    id: `tree:${folder.id}`,
    data: { space: space.id, ids: [folder.id], name: folder.name },
    disabled: !mayWrite,
  });
  useEffect(() => {
    if (!drop.isOver || !branches || isOpen) return;
    const timer = setTimeout(onHeldOver, openAfterMilliseconds);
    return () => clearTimeout(timer);
  }, [drop.isOver, branches, isOpen, onHeldOver]);
  return (
    <div
      ref={drop.setNodeRef}
      className={`flex h-9 items-center rounded-md pe-2 ${isChosen ? 'bg-base-200 font-semibold' : 'hover:bg-base-200'} ${drop.isOver ? 'outline-2 outline-primary' : ''}`}
      style={{ paddingLeft: Math.min(depth, 8) * 18 }}
    >
      {branches ? (
        <button
          type="button"
          tabIndex={-1}
          aria-label={`${isOpen ? t`Fold` : t`Unfold`} ${folder.name}`}
          className="grid h-9 w-7 shrink-0 place-items-center text-quiet"
          onClick={onToggle}
        >
          {isOpen ? <CaretDownIcon size={14} /> : <CaretRightIcon size={14} />}
        </button>
      ) : (
        <span className="w-7 shrink-0" />
      )}
      <div ref={drag.setNodeRef} {...drag.listeners} className="flex min-w-0 grow">
        <Link
          to={`/library/${space.id}/${folder.id}`}
          draggable={false}
          aria-current={isChosen ? 'page' : undefined}
          data-testid="folder"
          data-name={folder.name}
          data-id={folder.id}
          title={folder.name}
          className="flex h-9 min-w-0 grow items-center gap-2.5"
        >
          <span className={`h-4 w-1 shrink-0 rounded-sm ${fillOf[folder.colour] ?? 'bg-spruce'}`} />
          {folder.icon && <NodeIcon name={folder.icon} size={17} />}
          <span className="grow truncate">{folder.name || t`Unnamed folder`}</span>
          <span className="text-[13px] font-normal text-quiet">{count}</span>
        </Link>
      </div>
    </div>
  );
}
