import { DndContext, type DragEndEvent, DragOverlay, MouseSensor, pointerWithin, TouchSensor, useSensor, useSensors } from '@dnd-kit/core';
import { DotsThreeIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { usePeople } from '../group/usePeople';
import { type Space, useSession } from '../session/session';
import { Menu } from '../ui/Menu';
import { BinScreen } from './BinScreen';
import { attempt, MoveDialog, NameDialog, NotebookDialog } from './dialogs';
import { FolderTree } from './FolderTree';
import { binEntry, changeEntries, DragSign, NotebookRow, openPath, type RowActions } from './NotebookRow';
import { colours, type Library, type LibraryNode, root, useLibrary, useShelf } from './useLibrary';

type Asking = { what: 'folder'; space: string } | { what: 'notebook' } | { what: 'rename' | 'move'; node: LibraryNode };

/** Folder tree, then the folder's content as rows. */
export function LibraryScreen() {
  const { spaces } = useSession();
  const { space: spaceId = spaces.find((one) => !one.personal)?.id ?? spaces[0]!.id, folder = root } = useParams();
  const space = spaces.find((one) => one.id === spaceId) ?? spaces[0]!;
  const library = useLibrary(space.id);
  const [asking, setAsking] = useState<Asking>();
  const [dragged, setDragged] = useState('');
  const [said, setSaid] = useState('');
  const navigate = useNavigate();
  const sensors = useSensors(useSensor(MouseSensor, { activationConstraint: { distance: 8 } }), useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 8 } }));

  const drop = ({ active, over }: DragEndEvent) => {
    setDragged('');
    const [overSpace, into] = String(over?.id ?? '').split(':');
    const node = library?.find(String(active.id));
    if (!into || !library || !node || into === node.id || into === node.parent) return;
    setSaid(overSpace === space.id ? attempt(() => library.move(node.id, into)) : 'Things move within one library for now. Nothing was changed.');
  };

  return (
    <DndContext sensors={sensors} collisionDetection={pointerWithin} onDragStart={({ active }) => setDragged(String(active.data.current?.name ?? ''))} onDragEnd={drop} onDragCancel={() => setDragged('')}>
      <div className="flex h-full">
        <aside aria-label="Folders" className="w-[236px] shrink-0 overflow-y-auto border-r border-base-300 px-2.5 py-5 max-md:hidden">
          {[...spaces].sort((a, b) => Number(a.personal) - Number(b.personal)).map((one) => (
            <FolderTree key={one.id} space={one} chosen={one.id === space.id ? folder : undefined} onNewFolder={() => setAsking({ what: 'folder', space: one.id })} />
          ))}
        </aside>
        <div className="min-w-0 grow overflow-y-auto px-[30px] pb-10 pt-6 max-sm:px-4">
          {library && (folder === 'bin' ? <BinScreen library={library} space={space} /> : <FolderContent library={library} space={space} folder={folder} said={said} onAsk={setAsking} />)}
        </div>
      </div>
      <DragOverlay dropAnimation={null}>{dragged && <DragSign name={dragged} />}</DragOverlay>
      {library && asking?.what === 'notebook' && (
        <NotebookDialog
          onClose={() => setAsking(undefined)}
          onConfirm={async (name, colour, cover) => {
            const made = await library.newNotebook(folder, name, colour, cover);
            await navigate(`${openPath(space.id, made.notebook)}${made.page}`);
          }}
        />
      )}
      {asking?.what === 'folder' && <NewFolder space={asking.space} parent={asking.space === space.id && folder !== 'bin' ? folder : root} onClose={() => setAsking(undefined)} />}
      {library && asking?.what === 'rename' && (
        <NameDialog title={`Rename “${asking.node.name}”`} confirm="Rename" name={asking.node.name} onConfirm={(name) => library.rename(asking.node.id, name)} onClose={() => setAsking(undefined)} />
      )}
      {library && asking?.what === 'move' && <MoveDialog library={library} node={asking.node} spaceName={space.name} onClose={() => setAsking(undefined)} />}
    </DndContext>
  );
}

function NewFolder({ space, parent, onClose }: { space: string; parent: string; onClose: () => void }) {
  const library = useLibrary(space);
  if (!library) return null;
  const colour = colours[library.nodes.length % colours.length]!;
  return <NameDialog title="New folder" confirm="Make the folder" onConfirm={(name) => library.newFolder(parent, name, colour)} onClose={onClose} />;
}

function FolderContent({ library, space, folder, said, onAsk }: { library: Library; space: Space; folder: string; said: string; onAsk: (asking: Asking) => void }) {
  const shelf = useShelf(space.id);
  const people = usePeople(space.id);
  const navigate = useNavigate();
  const here = library.find(folder);
  const mayWrite = space.role !== 'reader';
  const actionsOn = (node: LibraryNode): RowActions => ({
    rename: () => onAsk({ what: 'rename', node }),
    move: () => onAsk({ what: 'move', node }),
    toBin: () => library.toBin(node.id),
  });
  const writtenAt = (node: LibraryNode) => shelf.get(node.id)?.writtenAt ?? '9';
  const notebooks = library.allNotebooks(folder).sort((a, b) => writtenAt(b).localeCompare(writtenAt(a)) || a.name.localeCompare(b.name));
  const binAndGo = here && { ...actionsOn(here), toBin: () => (library.toBin(here.id), void navigate(`/library/${space.id}`)) };
  return (
    <>
      <header className="flex items-end gap-3 border-b border-base-300 pb-3">
        <div className="min-w-0 grow">
          <p className="truncate text-quiet">{[here ? space.name : 'Library', ...library.pathOf(folder).map((node) => node.name)].join(' / ')}</p>
          <h1 className="text-[30px] leading-tight [overflow-wrap:anywhere]" data-testid="library-heading">
            {here?.name ?? space.name}
          </h1>
        </div>
        {binAndGo && mayWrite && <Menu label={`More for the folder ${here.name}`} testId="folder-menu" icon={<DotsThreeIcon size={24} />} entries={[...changeEntries(binAndGo), binEntry(binAndGo)]} />}
        {mayWrite && (
          <button type="button" className="btn btn-primary h-10 min-h-10 px-5" data-testid="new-notebook" onClick={() => onAsk({ what: 'notebook' })}>
            New notebook
          </button>
        )}
      </header>
      <p role="status" className={said ? 'pt-3 text-error' : 'sr-only'}>
        {said}
      </p>
      {notebooks.length === 0 && (
        <div className="py-14 text-center">
          <p className="font-title text-[19px]">No notebooks here yet</p>
          <p className="mt-1 text-quiet">
            {mayWrite ? 'Make one with “New notebook”, or drag one here from another folder.' : 'The writers of this library have not put any here.'}
          </p>
        </div>
      )}
      <ul>
        {notebooks.map((node) => (
          <NotebookRow key={node.id} node={node} space={space.id} shelf={shelf.get(node.id)} folder={node.parent === folder ? undefined : library.find(node.parent)} people={people} actions={mayWrite ? actionsOn(node) : undefined} />
        ))}
      </ul>
    </>
  );
}
