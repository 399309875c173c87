import { SignButton } from '../ui/Button';
import { carryWords } from '../ui/carryWords';
import { t } from '@lingui/core/macro';
import {
  type CollisionDetection,
  DndContext,
  type DragEndEvent,
  DragOverlay,
  MeasuringStrategy,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { FolderSimpleIcon, SidebarSimpleIcon } from '@phosphor-icons/react';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { type Space, useSession } from '../server/session';
import { BinScreen } from './BinScreen';
import { FolderDialog } from './lookDialogs';
import { FolderContent } from './FolderContent';
import { FolderPast } from './FolderPast';
import { maySeePast } from '../data/rights';
import { LibrarySide, type Place } from './LibrarySide';
import { colours, root } from '../model/items';
import { AsidesScreen } from './AsidesScreen';
import { SharedScreen } from '../sharing/SharedScreen';
import { TagScreen } from './TagScreen';
import type { Library } from '../data/Library';
import { useLibraries } from '../data/useLibrary';
import { say } from '../ui/saying';
import { doing } from '../data/doing';
import { type Workspace } from '../sync/workspace';
import { useWorkspace } from '../data/useWorkspace';
import { moveNodes } from '../moving/moveNodes';

/** Trees and lists at the side, then what lies in the chosen place. */
export function LibraryScreen() {
  const { spaces } = useSession();
  const { space = spaces.find((one) => !one.personal)?.id ?? spaces[0]!.id, folder = root } = useParams();
  const at: Place = { space, place: folder };
  const libraries = useLibraries();
  const workspace = useWorkspace();
  const navigate = useNavigate();
  const [newFolder, setNewFolder] = useState<string>();
  const [made, setMade] = useState<string>();
  const [dragged, setDragged] = useState('');
  const [sideShown, setSideShown] = useState(false);
  const drawer = useRef<HTMLDivElement>(null);
  const opener = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (sideShown) drawer.current!.querySelector<HTMLElement>('a, button')?.focus();
  }, [sideShown]);
  const closeSide = () => {
    setSideShown(false);
    opener.current?.focus();
  };
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 8 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 8 } }),
  );

  /** What a thing is held over; over the folders it is one of them, and nothing that the drawer hides. */
  const whatIsUnder: CollisionDetection = (args) => {
    const under = pointerWithin(args);
    const at = args.pointerCoordinates;
    const side = drawer.current?.getBoundingClientRect();
    if (!at || !side || at.x < side.left || at.x > side.right) return under;
    const inside = new Set(
      args.droppableContainers
        .filter(({ node }) => node.current && drawer.current!.contains(node.current))
        .map(({ id }) => id),
    );
    return under.filter(({ id }) => inside.has(id));
  };

  const drop = ({ active, over }: DragEndEvent) => {
    setDragged('');
    const dragData = active.data.current as { space: string; ids: string[]; name: string } | undefined;
    if (!over || !dragData || !libraries) return;
    void dropOn(workspace, String(over.id), dragData, libraries);
  };

  /** A new folder comes into the one that is open, or where another library is asked for, to its head. */
  const parentOf = (of: string): { id: string; name: string } => {
    const open = of === space ? libraries.get(of)?.find(folder) : undefined;
    return open?.kind === 'folder'
      ? { id: open.id, name: open.name }
      : { id: root, name: spaces.find((one) => one.id === of)?.name ?? '' };
  };
  const side = (
    <LibrarySide at={at} onNewFolder={setNewFolder} whereOf={(of) => parentOf(of).name} {...(made ? { made } : {})} />
  );
  return (
    <DndContext
      sensors={sensors}
      accessibility={carryWords}
      collisionDetection={whatIsUnder}
      // What is carried may be let go over a folder that the drawer holds: it comes out as long as that is in the hand.
      measuring={{ droppable: { strategy: MeasuringStrategy.Always } }}
      onDragStart={({ active }) => setDragged(String(active.data.current?.name ?? ''))}
      onDragEnd={drop}
      onDragCancel={() => setDragged('')}
    >
      <div className="relative flex h-full">
        <div
          ref={drawer}
          data-testid="library-drawer"
          className={`h-full max-[1199px]:absolute max-[1199px]:inset-y-0 max-[1199px]:start-0 max-[1199px]:z-40 max-[1199px]:bg-base-100 max-[1199px]:shadow-xl ${sideShown || dragged ? '' : 'max-[1199px]:hidden'}`}
          onClick={(event) => (event.target as Element).closest('a') && setSideShown(false)}
          onKeyDown={(event) => {
            if (event.key !== 'Escape' || event.defaultPrevented || !sideShown) return;
            event.preventDefault();
            closeSide();
          }}
          role="presentation"
        >
          {side}
        </div>
        {sideShown && (
          <button
            type="button"
            aria-label={t`Close the folders`}
            className="absolute inset-0 z-30 bg-[#22302e]/35 min-[1200px]:hidden"
            onClick={closeSide}
          />
        )}
        <div className="flex min-w-0 grow flex-col">
          {libraries && (
            <Content
              key={`${space}/${folder}`}
              at={at}
              libraries={libraries}
              spaces={spaces}
              onNewFolder={setNewFolder}
              lead={
                <SignButton
                  label={t`Folders and lists`}
                  ref={opener}
                  aria-expanded={sideShown}
                  className="-ms-2 min-[1200px]:hidden"
                  data-testid="show-side"
                  onClick={() => setSideShown(true)}
                >
                  <SidebarSimpleIcon size={22} weight="light" />
                </SignButton>
              }
            />
          )}
        </div>
      </div>
      <DragOverlay dropAnimation={null}>
        {dragged && (
          <div className="flex h-10 w-max items-center gap-2 rounded-md border border-primary bg-base-100 px-3 font-semibold shadow-lg">
            <FolderSimpleIcon size={20} weight="light" />
            {dragged}
          </div>
        )}
      </DragOverlay>
      {newFolder && libraries && (
        <FolderDialog
          title={t`New folder in “${parentOf(newFolder).name}”`}
          confirm={t`Make the folder`}
          look={{ name: '', colour: colours[libraries.get(newFolder)!.nodes.size % colours.length]!, icon: '' }}
          onConfirm={(look) => {
            const library = libraries.get(newFolder)!;
            const id = library.newFolder(parentOf(newFolder).id, look.name, look.colour);
            if (look.icon) library.set(id, 7, look.icon);
            setMade(id);
            say(t`“${look.name.trim()}” is in ${parentOf(newFolder).name}.`, {
              words: t`Open it`,
              do: () => void navigate(`/library/${newFolder}/${id}`),
            });
          }}
          onClose={() => setNewFolder(undefined)}
        />
      )}
    </DndContext>
  );
}

/** Lists that are screens of their own. */
const screens: ReadonlyMap<string, ReactNode> = new Map([
  ['bin', <BinScreen key="bin" />],
  ['tags', <TagScreen key="tags" />],
  ['given', <SharedScreen key="given" />],
  ['asides', <AsidesScreen key="asides" />],
]);

function Content({
  at,
  libraries,
  spaces,
  onNewFolder,
  lead,
}: {
  at: Place;
  libraries: Map<string, Library>;
  spaces: Space[];
  onNewFolder: (space: string) => void;
  lead: ReactNode;
}) {
  const [search, setSearch] = useSearchParams();
  const past = search.get('past');
  const list = at.space === 'list' && screens.get(at.place);
  if (list) {
    return (
      <div className="min-h-0 grow overflow-y-auto px-[30px] pb-10 pt-6 max-sm:px-4">
        {lead}
        {list}
      </div>
    );
  }
  const space = spaces.find((one) => one.id === at.space);
  if (at.space !== 'list' && !space) return <p className="p-10">{t`There is nothing here that you may see.`}</p>;
  const library = libraries.get(at.space);
  if (past !== null && space && library && !at.place.startsWith('lens-') && maySeePast(space))
    return (
      <FolderPast
        space={space}
        library={library}
        folder={at.place}
        from={Number(past)}
        onClose={() => setSearch({}, { replace: true })}
      />
    );
  return (
    <FolderContent at={at} {...(space ? { space } : {})} libraries={libraries} onNewFolder={onNewFolder} lead={lead} />
  );
}

/** What a drop does: into a folder (in the tree, or its tile, which needs an id of its own), into the bin, or before another thing in an own order. */
async function dropOn(
  workspace: Workspace,
  target: string,
  { space, ids, name }: { space: string; ids: string[]; name: string },
  libraries: Map<string, Library>,
): Promise<void> {
  const library = libraries.get(space)!;
  const words = ids.length === 1 ? `“${name}”` : name;
  const [how, intoSpace = '', into = ''] = target.split(':');
  if (how === 'bin')
    return void doing(workspace, t`Put ${words} into the bin.`, () => ids.forEach((id) => library.toBin(id)));
  const moved = ids.filter((id) => id !== into);
  if (how === 'before') {
    const sibling = library.find(into);
    if (intoSpace !== space || !sibling) return;
    const siblings = library.inside(sibling.parent, sibling.kind).filter((one) => !moved.includes(one.id));
    const after = siblings[siblings.findIndex((one) => one.id === into) - 1]?.id ?? 'first';
    return void doing(workspace, t`Moved.`, () =>
      moved.toReversed().forEach((id) => library.move(id, sibling.parent, after)),
    );
  }
  const going = moved.filter((id) => {
    const node = library.find(id);
    return node?.jot || intoSpace !== space || node?.parent !== into;
  });
  if (going.length === 0) return;
  const refused = await moveNodes(
    workspace,
    libraries,
    { space, ids: going, words },
    { space: intoSpace, folder: into },
  );
  if (refused) say(refused);
}
