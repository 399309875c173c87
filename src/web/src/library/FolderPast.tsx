import { t } from '@lingui/core/macro';
import { ArrowUpIcon, CopyIcon, FolderSimpleIcon } from '@phosphor-icons/react';
import { type ReactNode, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Library } from '../data/Library';
import { may } from '../data/rights';
import { usePeople } from '../data/usePeople';
import { useSummaries } from '../data/useShelf';
import { useDocument, useWorkspace } from '../data/useWorkspace';
import { became } from '../history/haveBack';
import { type Became, BecameSign, PlacesBar } from '../history/PlacesBar';
import { copyThing } from '../history/copyThing';
import { useDifferences, usePlacesPast } from '../history/usePlacesPast';
import { fillOf } from '../model/colours';
import { type LibraryNode, overviewPath, root } from '../model/items';
import { Cover } from '../papers/Cover';
import type { Space } from '../server/session';
import { Button } from '../ui/Button';
import { say } from '../ui/saying';
import { useSelection } from '../ui/useChosen';
import { NodeIcon } from '../ui/NodeIcon';

interface FolderPastProps {
  space: Space;
  library: Library;
  folder: string;
  /** The moment to begin with, UTC milliseconds; 1 for now. */
  from: number;
  onClose: () => void;
}

const coverWidth = 104;
const nothing: LibraryNode[] = [];

/** What lay in a folder, or at the head of a library; compared with what lies there, and had back. */
export function FolderPast({ space, library, folder, from, onClose }: FolderPastProps) {
  const navigate = useNavigate();
  const { PlacesBridge } = useWorkspace().core;
  const document = useDocument(space.id, 'library', space.id);
  const past = usePlacesPast(
    document,
    `/api/spaces/${space.id}/chart${folder === root ? '' : `?folder=${folder}`}`,
    from,
  );
  const people = usePeople(space.id);
  const [compares, setCompares] = useState(false);
  const handle = document?.handle;
  const stands = useMemo(
    () => (['folder', 'notebook'] as const).flatMap((kind) => library.inside(folder, kind)),
    [library, folder],
  );
  const then = useMemo(() => {
    // As it is now it goes on.
    if (past.isNow) return stands;
    return handle === undefined || past.shown === 0
      ? nothing
      : (JSON.parse(PlacesBridge.Nodes(handle)) as LibraryNode[]).filter((node) => !node.jot);
  }, [PlacesBridge, handle, past.isNow, past.shown, stands]);
  const stood = useMemo(() => then.filter((node) => node.parent === folder), [then, folder]);
  const stoodHere = useMemo(() => new Set(stood.map(({ id }) => id)), [stood]);
  const inside = useMemo(
    () => (compares ? [...stood, ...stands.filter(({ id }) => !stoodHere.has(id))] : stood),
    [compares, stood, stands, stoodHere],
  );
  const differences = useDifferences(document, past, inside, library.version);
  const selection = useSelection(useMemo(() => [...stoodHere], [stoodHere]));
  const summaries = useSummaries();

  const becameOf = ({ id }: LibraryNode): Became | undefined => {
    // What was moved here from elsewhere came since, as one sees it here.
    if (!stoodHere.has(id)) return 'came';
    const since = differences.get(id);
    const isWritten = (summaries.get(id)?.writtenAt ?? 0) > past.time;
    if (since === became.binned) return 'binned';
    if (since === became.gone) return 'gone';
    if (isWritten) return 'written';
    return since === became.changed ? 'changed' : undefined;
  };
  const here = then.find((node) => node.id === folder) ?? library.find(folder);
  const name = folder === root ? space.name : (here?.name ?? '');
  const above = here?.parent ?? root;

  /** Things with all that lay in them, each before what lay in it. */
  const withinAll = (ids: Iterable<string>): LibraryNode[] => {
    const byParent = new Map<string, LibraryNode[]>();
    for (const node of then) {
      if (!byParent.has(node.parent)) byParent.set(node.parent, []);
      byParent.get(node.parent)!.push(node);
    }
    const chosen = new Set(ids);
    const waiting = then.filter((node) => chosen.has(node.id));
    for (const node of waiting) waiting.push(...(byParent.get(node.id) ?? []));
    return waiting;
  };
  const wanted = () => {
    const all = withinAll(selection.chosen.size > 0 ? selection.chosen : stoodHere);
    const ids = all.map((node) => node.id);
    // The folder itself is where and how it was, too, when all of it is had back.
    const itself = selection.chosen.size > 0 || folder === root ? [] : [folder];
    return {
      space: space.id,
      isGuest: false,
      time: past.until,
      library: { document: document!, ids: [...itself, ...ids] },
      notebooks: all.filter((node) => node.kind === 'notebook').map(({ id }) => ({ id })),
      shown: space.id,
    };
  };
  const open = (node: LibraryNode) => {
    if (differences.get(node.id) === became.gone) return say(t`It was erased from the bin.`);
    const isThen = !past.isNow && stoodHere.has(node.id);
    const path = node.kind === 'folder' ? `/library/${space.id}/${node.id}` : overviewPath(space.id, node.id);
    void navigate(isThen ? `${path}?past=${past.until}` : path);
  };
  const press = (node: LibraryNode, shift: boolean) =>
    selection.choosing && stoodHere.has(node.id) ? selection.press(node.id, { shift, more: true }) : open(node);
  const partsOf = (node: LibraryNode) => ({
    chosen: selection.chosen.has(node.id),
    choosing: selection.choosing,
    sign: compares && !past.isNow ? becameOf(node) : undefined,
    onPress: (shift: boolean) => press(node, shift),
  });
  const folders = inside.filter((node) => node.kind === 'folder');
  const notebooks = inside.filter((node) => node.kind === 'notebook');
  return (
    <div className="relative flex h-full min-h-0 flex-col" data-testid="folder-past">
      <PlacesBar
        past={past}
        label={t`Moment of the folder`}
        people={people}
        moments={[]}
        compares={compares}
        onCompare={setCompares}
        signs={inside.map(becameOf)}
        {...(may(space, 'Write')
          ? {
              back: {
                selection,
                wanted,
              },
            }
          : {})}
        more={
          may(space, 'Write') && folder !== root && !past.isNow
            ? [
                {
                  label: t`A folder of its own as it was`,
                  testId: 'history-copy',
                  icon: <CopyIcon size={20} weight="light" />,
                  onChoose: () =>
                    copyThing(
                      library,
                      { id: folder, name, parent: above },
                      past.until,
                      (made) => void navigate(`/library/${space.id}/${made}`),
                    ),
                },
              ]
            : []
        }
        onClose={onClose}
      />
      <div className="min-h-0 grow overflow-y-auto px-[30px] pb-16 pt-4 max-sm:px-4">
        <div className="flex items-center gap-2">
          <h1 className="min-w-0 grow truncate text-[26px] leading-tight" data-testid="past-name">
            {name}
          </h1>
          {folder !== root && (
            <Button
              data-testid="past-up"
              onClick={() => void navigate(`/library/${space.id}/${above}${past.isNow ? '' : `?past=${past.until}`}`)}
            >
              <ArrowUpIcon size={20} weight="light" />
              {t`The folder around it`}
            </Button>
          )}
        </div>
        {inside.length === 0 && past.shown > 0 && (
          <p className="pt-3 text-quiet" data-testid="past-empty">{t`Nothing lay here then.`}</p>
        )}
        {folders.length > 0 && (
          <ul className="flex flex-wrap gap-3 pt-4">
            {folders.map((node) => (
              <li key={node.id}>
                <Piece
                  node={node}
                  {...partsOf(node)}
                  className="flex min-h-11 items-center rounded-md border border-base-300 px-3"
                >
                  <span className={`me-2.5 h-5 w-1 shrink-0 rounded-sm ${fillOf[node.colour] ?? 'bg-spruce'}`} />
                  {node.icon ? <NodeIcon name={node.icon} /> : <FolderSimpleIcon size={18} weight="light" />}
                  <span className="max-w-64 truncate ps-2 text-[15px]">{node.name}</span>
                </Piece>
              </li>
            ))}
          </ul>
        )}
        {notebooks.length > 0 && (
          <ul className="flex flex-wrap gap-6 pt-6">
            {notebooks.map((node) => (
              <li key={node.id} style={{ width: coverWidth + 44 }}>
                <Piece node={node} {...partsOf(node)} className="block w-full rounded-sm p-1 text-start">
                  <Cover node={node} width={coverWidth} space={space.id} />
                  <span className="block truncate pt-1.5 font-title text-[15px]">{node.name}</span>
                </Piece>
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}

interface PieceProps {
  node: LibraryNode;
  chosen: boolean;
  choosing: boolean;
  sign: Became | undefined;
  className: string;
  onPress: (shift: boolean) => void;
  children: ReactNode;
}

/** A folder or notebook of then, with what became of it. */
function Piece({ node, chosen, choosing, sign, className, onPress, children }: PieceProps) {
  return (
    <>
      <button
        type="button"
        aria-pressed={choosing ? chosen : undefined}
        data-testid="past-piece"
        data-name={node.name}
        className={`${className} ${sign === 'came' ? 'opacity-55' : ''} ${chosen ? 'outline-[3px] outline-offset-2 outline-primary' : 'hover:bg-base-200'}`}
        onClick={(event) => onPress(event.shiftKey)}
      >
        {children}
      </button>
      {sign && (
        <p className="px-1 pt-1 text-[13px]">
          <BecameSign became={sign} />
        </p>
      )}
    </>
  );
}
