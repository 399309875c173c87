import { useDraggable, useDroppable } from '@dnd-kit/core';
import { CaretDownIcon, CaretRightIcon, PlusIcon, TrashIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Space } from '../session/session';
import { fillOf } from './palette';
import { type Library, type LibraryNode, root, useLibrary } from './useLibrary';

/** The folders of one space, and its bin. Folders can be dragged and dropped on. */
export function FolderTree({ space, chosen, onNewFolder }: { space: Space; chosen?: string; onNewFolder: () => void }) {
  const library = useLibrary(space.id);
  const mayWrite = space.role !== 'reader';
  const { setNodeRef, isOver } = useDroppable({ id: `${space.id}:${root}`, disabled: !mayWrite });
  const binned = library?.bin().length ?? 0;
  return (
    <section className="mb-5" aria-label={space.name}>
      <div ref={setNodeRef} className={`flex items-center rounded-md pl-2 ${isOver ? 'outline-2 outline-primary' : ''} ${chosen === root ? 'bg-base-200' : ''}`}>
        <Link to={`/library/${space.id}`} aria-current={chosen === root ? 'page' : undefined} className="min-w-0 grow py-2 font-title text-[17px] leading-tight font-medium [overflow-wrap:anywhere]">
          {space.name}
        </Link>
        {mayWrite && (
          <button type="button" aria-label={`New folder in ${space.name}`} title="New folder" data-testid={`new-folder-${space.personal ? 'personal' : 'group'}`} className="grid size-10 shrink-0 place-items-center rounded-md text-quiet hover:bg-base-200" onClick={onNewFolder}>
            <PlusIcon size={18} />
          </button>
        )}
      </div>
      {library && <Branch library={library} parent={root} space={space} chosen={chosen} depth={0} />}
      <Link
        to={`/library/${space.id}/bin`}
        data-testid={`bin-${space.personal ? 'personal' : 'group'}`}
        aria-current={chosen === 'bin' ? 'page' : undefined}
        className={`flex h-10 items-center gap-2.5 rounded-md pl-3 pr-2 text-quiet hover:bg-base-200 ${chosen === 'bin' ? 'bg-base-200 font-semibold' : ''}`}
      >
        <TrashIcon size={18} weight="light" />
        <span className="grow">Bin</span>
        {binned > 0 && <span className="text-[13px]">{binned}</span>}
      </Link>
    </section>
  );
}

interface BranchProps {
  library: Library;
  space: Space;
  chosen?: string;
  depth: number;
}

function Branch({ parent, ...rest }: BranchProps & { parent: string }) {
  return (
    <ul>
      {rest.library.inside(parent, 'folder').map((folder) => (
        <FolderEntry key={folder.id} folder={folder} {...rest} />
      ))}
    </ul>
  );
}

function FolderEntry({ folder, library, space, chosen, depth }: BranchProps & { folder: LibraryNode }) {
  const [open, setOpen] = useState(true);
  const mayWrite = space.role !== 'reader';
  const drop = useDroppable({ id: `${space.id}:${folder.id}`, disabled: !mayWrite });
  const drag = useDraggable({ id: folder.id, data: { name: folder.name }, disabled: !mayWrite });
  const children = library.inside(folder.id, 'folder');
  const isChosen = chosen === folder.id;
  return (
    <li>
      <div
        ref={drop.setNodeRef}
        className={`flex items-center rounded-md pr-2 ${isChosen ? 'bg-base-200 font-semibold' : 'hover:bg-base-200'} ${drop.isOver ? 'outline-2 outline-primary' : ''}`}
        style={{ paddingLeft: depth * 18 }}
      >
        {children.length > 0 ? (
          <button type="button" aria-expanded={open} aria-label={`${open ? 'Fold' : 'Unfold'} ${folder.name}`} className="grid h-10 w-7 shrink-0 place-items-center text-quiet" onClick={() => setOpen(!open)}>
            {open ? <CaretDownIcon size={14} /> : <CaretRightIcon size={14} />}
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
            className="flex h-10 min-w-0 grow items-center gap-2.5"
          >
            <span className={`h-4 w-1 shrink-0 rounded-sm ${fillOf[folder.colour] ?? 'bg-spruce'}`} />
            <span className="grow truncate">{folder.name || 'Unnamed folder'}</span>
            <span className="text-[13px] font-normal text-quiet">{library.allNotebooks(folder.id).length}</span>
          </Link>
        </div>
      </div>
      {open && children.length > 0 && <Branch library={library} parent={folder.id} space={space} chosen={chosen} depth={depth + 1} />}
    </li>
  );
}
