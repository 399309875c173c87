import { useDraggable } from '@dnd-kit/core';
import { ArrowBendUpRightIcon, DotsThreeIcon, FilePdfIcon, FolderSimpleIcon, PencilSimpleIcon, TrashIcon } from '@phosphor-icons/react';
import { Link } from 'react-router';
import { type Member } from '../group/usePeople';
import { Avatar } from '../ui/Avatar';
import { Menu, type MenuEntry } from '../ui/Menu';
import { whenWords } from '../ui/time';
import { Cover } from './Cover';
import type { LibraryNode, ShelfEntry } from './useLibrary';

export interface RowActions {
  rename: () => void;
  move: () => void;
  toBin: () => void;
}

/** A notebook as a row: cover, words, people, and the strip of pages written last. */
export function NotebookRow({ node, space, shelf, folder, people, actions }: { node: LibraryNode; space: string; shelf?: ShelfEntry; folder?: LibraryNode; people: Member[]; actions?: RowActions }) {
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id: node.id, data: { name: node.name }, disabled: !actions });
  const writers = (shelf?.people ?? []).map((id) => people.find((person) => person.id === id)).filter((person) => person !== undefined);
  return (
    <li
      ref={setNodeRef}
      data-testid="notebook-row"
      data-name={node.name}
      className={`flex items-start gap-[18px] border-b border-base-300 py-4 ${isDragging ? 'opacity-40' : ''}`}
      {...listeners}
    >
      <Link to={openPath(space, node.id)} tabIndex={-1} draggable={false}>
        <Cover node={node} />
      </Link>
      <div className="w-[236px] shrink-0 pt-0.5 max-sm:w-auto max-sm:grow">
        <h2 className="text-[19px] leading-snug [overflow-wrap:anywhere]">
          <Link to={openPath(space, node.id)} draggable={false} className="hover:underline" data-testid="open-notebook">
            {node.name}
          </Link>
        </h2>
        <p className="text-quiet">
          {[shelf ? (shelf.pageCount === 1 ? '1 page' : `${shelf.pageCount} pages`) : 'new', ...(folder ? [folder.name] : [])].join(' · ')}
        </p>
        <div className="mt-3 flex items-center gap-2.5">
          {writers.length > 0 && (
            <span className="flex -space-x-1.5">
              {writers.slice(0, 4).map((writer) => (
                <Avatar key={writer.id} name={writer.name} colour={writer.colour} />
              ))}
            </span>
          )}
          {shelf?.writtenAt && <span className="text-[13px] text-quiet">{whenWords(shelf.writtenAt)}</span>}
        </div>
      </div>
      <PageStrip node={node} space={space} shelf={shelf} />
      <div className="pt-1" {...(actions ? attributes : {})} tabIndex={-1} role="presentation">
        <Menu label={`More for ${node.name}`} testId="row-menu" icon={<DotsThreeIcon size={24} />} entries={entries(node, actions)} />
      </div>
    </li>
  );
}

function PageStrip({ node, space, shelf }: { node: LibraryNode; space: string; shelf?: ShelfEntry }) {
  return (
    <ol className="flex h-[132px] grow flex-wrap gap-[10px] overflow-hidden max-sm:hidden" aria-label={`Pages of ${node.name} written last`}>
      {(shelf?.strip ?? []).map((page) => (
        <li key={page.id}>
          <Link to={`${openPath(space, node.id)}${page.id}`} draggable={false} className="group block text-center text-[13px] text-quiet">
            <img
              src={`/api/spaces/${space}/pages/${page.id}/thumbnail.svg?paper=${page.paper}&sequence=${page.sequence}`}
              alt={page.title ? `Page ${page.number}, ${page.title}` : `Page ${page.number}`}
              width={79}
              height={111}
              draggable={false}
              data-testid="strip-page"
              className="block h-[111px] w-[79px] border border-base-300 bg-paper group-hover:border-primary"
            />
            <span className="block pt-0.5 text-left">{page.number}</span>
          </Link>
        </li>
      ))}
    </ol>
  );
}

function entries(node: LibraryNode, actions?: RowActions): MenuEntry[] {
  const pdf = { label: 'Export as PDF', icon: <FilePdfIcon size={20} weight="light" />, onChoose: () => location.assign(`/api/notebooks/${node.id}/export.pdf`) };
  return actions ? [...changeEntries(actions), pdf, binEntry(actions)] : [pdf];
}

export function changeEntries(actions: RowActions): MenuEntry[] {
  return [
    { label: 'Rename', testId: 'menu-rename', icon: <PencilSimpleIcon size={20} weight="light" />, onChoose: actions.rename },
    { label: 'Move to', testId: 'menu-move', icon: <ArrowBendUpRightIcon size={20} weight="light" />, onChoose: actions.move },
  ];
}

export function binEntry(actions: RowActions): MenuEntry {
  return { label: 'Put into the bin', testId: 'menu-bin', icon: <TrashIcon size={20} weight="light" />, onChoose: actions.toBin };
}

export function openPath(space: string, notebook: string): string {
  return `/page/${space}/${notebook}/`;
}

/** What hangs at the pointer while something is dragged. */
export function DragSign({ name }: { name: string }) {
  return (
    <div className="flex h-10 w-max items-center gap-2 rounded-md border border-primary bg-base-100 px-3 font-semibold shadow-lg">
      <FolderSimpleIcon size={20} weight="light" />
      {name}
    </div>
  );
}
