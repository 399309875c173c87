import { may } from '../data/rights';
import { Button } from '../ui/Button';
import { plural, t } from '@lingui/core/macro';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { FileIcon, FolderSimpleIcon, RowsIcon, StampIcon, TagIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { properties } from '../core/runtime';
import type { Space } from '../server/session';
import { useWorkspace } from '../data/useWorkspace';
import { bytesWords } from '../model/bytes';
import { whenWords } from '../model/time';
import { BySpace } from './BySpace';
import { Cover } from '../papers/Cover';
import { ConfirmDialog } from '../ui/naming';
import { NodeIcon } from '../ui/NodeIcon';
import { type LibraryNode, nodeKinds, root, thumbnailPath } from '../model/items';
import { PlaceDialog } from '../moving/PlaceDialog';
import type { OpenDocument } from '../sync/openDocument';
import { MoveDialog } from '../moving/MoveDialog';
import type { Library } from '../data/Library';
import { useBinTimes } from '../data/useBinTimes';
import { useSummaries } from '../data/useShelf';

interface BinnedEntry {
  notebook: string;
  notebookName: string;
  id: string;
  isPage: boolean;
  title: string;
  number: number;
  paper: string;
  sequence: number;
  binnedAt: number;
  /** How many pages it is or holds. */
  pages: number;
}

const kindWords: Record<LibraryNode['kind'], string> = {
  folder: t`Folder, with all that is in it,`,
  notebook: t`Notebook`,
  tag: t`Tag`,
  lens: t`Lens`,
  paper: t`Paper`,
  markKind: t`Kind of mark`,
  stamp: t`Stamp`,
};

/** What it was, where from, and when it was put here. `from` is empty where the old place is gone. */
function wasWords(what: string, from: string, putAt: number): string {
  const when = whenWords(putAt);
  return from ? t`${what} from ${from}, put here ${when}` : t`${what} whose old place is gone, put here ${when}`;
}

/** What was put into the bin, each with the way back to its place; for how long the bin keeps things; and emptying it. */
export function BinScreen() {
  return <BySpace title={t`Bin`}>{(space, library) => <BinOf space={space} library={library} />}</BySpace>;
}

function BinOf({ space, library }: { space: Space; library: Library }) {
  const workspace = useWorkspace();
  const queries = useQueryClient();
  const summaries = useSummaries();
  const [said, setSaid] = useState('');
  const [emptying, setEmptying] = useState(false);
  const [placing, setPlacing] = useState<LibraryNode>();
  const [placingEntry, setPlacingEntry] = useState<BinnedEntry>();
  const mayWrite = may(space, 'Write');
  const nodes = library.bin(useBinTimes());
  const entries =
    useQuery({
      queryKey: ['bin', space.id],
      queryFn: async () => {
        await workspace.outbox.settled().catch(() => {});
        return workspace.list<BinnedEntry[]>(`/api/spaces/${space.id}/bin`);
      },
      refetchOnMount: 'always',
    }).data ?? [];
  const putBack = (node: LibraryNode) => {
    if (!library.placeIsThere(node.id)) {
      setPlacing(node);
      return;
    }
    library.putBack(node.id);
    setSaid(t`${node.name}: put back into ${library.find(node.parent)?.name ?? space.name}.`);
  };
  const inNotebook = async <T,>(notebook: string, work: (document: OpenDocument) => T): Promise<T> => {
    const document = await workspace.acquire(space.id, 'notebook', notebook);
    try {
      return work(document);
    } finally {
      workspace.release(space.id, 'notebook', notebook);
    }
  };
  const { NotebookBridge, LibraryBridge } = workspace.core;
  const nameOf = (entry: BinnedEntry) => entry.title || (entry.isPage ? t`Page ${entry.number}` : t`Section`);
  /** Into its old place, or into another of its notebook; asks for one where the old one is gone. */
  const putEntryBack = async (entry: BinnedEntry, into?: { parent: string; words: string }) => {
    const isDone = await inNotebook(entry.notebook, (document) => {
      if (!into && !NotebookBridge.PlaceIsThere(document.handle, entry.id)) return false;
      if (into)
        document.performTogether((handle, now) =>
          NotebookBridge.Place(handle, entry.id, nodeKinds[entry.isPage ? 'page' : 'section'], into.parent, '', now),
        );
      document.perform((handle, now) => LibraryBridge.SetProperty(handle, entry.id, properties.binned, '', now));
      return true;
    });
    if (!isDone) return setPlacingEntry(entry);
    setSaid(t`${nameOf(entry)}: put back into ${into?.words ?? entry.notebookName}.`);
    await queries.invalidateQueries({ queryKey: ['bin', space.id] });
  };
  const empty = async () => {
    library.erase(nodes.map((node) => node.id));
    for (const notebook of new Set(entries.map((entry) => entry.notebook))) {
      const own = entries.filter((entry) => entry.notebook === notebook).map((entry) => entry.id);
      await inNotebook(notebook, (document) =>
        document.performTogether((handle, now) => NotebookBridge.Erase(handle, own, now)),
      );
    }
    await workspace.outbox.settled().catch(() => {});
    await queries.invalidateQueries({ queryKey: ['bin', space.id] });
    setSaid(t`The bin is empty.`);
  };
  const size = amount(library, nodes, summaries);
  const pages = size.pages + entries.reduce((sum, entry) => sum + entry.pages, 0);
  return (
    <section
      className="pt-6"
      aria-label={t`Bin of ${space.name}`}
      data-testid={`bin-${space.personal ? 'personal' : 'group'}`}
    >
      <div className="flex flex-wrap items-center gap-3 border-b border-base-300 pb-2">
        <h2 className="grow text-[19px]">{space.name}</h2>
        <label className="flex items-center gap-2 text-quiet">
          {t`Keeps things`}
          <select
            className="select h-10 w-auto border-base-300 bg-base-100"
            value={library.binDays}
            disabled={!mayWrite}
            data-testid="bin-days"
            onChange={(event) => library.set(root, properties.binDays, event.target.value)}
          >
            <option value={7}>{t`for 7 days`}</option>
            <option value={30}>{t`for 30 days`}</option>
            <option value={90}>{t`for 90 days`}</option>
            <option value={0}>{t`until it is emptied`}</option>
          </select>
        </label>
        {mayWrite && nodes.length + entries.length > 0 && (
          <Button data-testid="empty-bin" onClick={() => setEmptying(true)}>{t`Empty now`}</Button>
        )}
      </div>
      <p role="status" className="min-h-7 pt-2 text-quiet" data-testid="bin-said">
        {said}
      </p>
      {nodes.length + entries.length === 0 && (
        <p className="py-3 text-quiet">{t`Nothing is in it. What you put here keeps its place and can be put back.`}</p>
      )}
      <ul>
        {nodes.map((node) => (
          <BinRow
            key={node.id}
            name={node.name}
            face={<NodeFace node={node} />}
            about={wasWords(
              kindWords[node.kind],
              library.placeIsThere(node.id) ? (library.find(node.parent)?.name ?? space.name) : '',
              node.putAt,
            )}
            {...(mayWrite ? { onPutBack: () => putBack(node) } : {})}
          />
        ))}
        {entries.map((entry) => (
          <BinRow
            key={entry.id}
            name={nameOf(entry)}
            face={
              entry.isPage ? (
                <img
                  src={thumbnailPath(space.id, entry)}
                  alt=""
                  width={56}
                  height={79}
                  className="border border-base-300 bg-paper"
                />
              ) : (
                <RowsIcon size={36} weight="thin" />
              )
            }
            about={entryWords(entry)}
            {...(mayWrite ? { onPutBack: () => void putEntryBack(entry) } : {})}
          />
        ))}
      </ul>
      {emptying && (
        <ConfirmDialog
          title={t`Empty the bin of ${space.name}`}
          confirm={t`Erase all of it`}
          onConfirm={() => void empty()}
          onClose={() => setEmptying(false)}
        >
          <p data-testid="empty-says">
            {t`${plural(size.notebooks, { one: '# notebook', other: '# notebooks' })} with ${plural(pages, { one: '# page', other: '# pages' })} (${bytesWords(size.bytes)}) will be erased for everybody. This cannot be taken back.`}
          </p>
        </ConfirmDialog>
      )}
      {placingEntry && (
        <PlaceDialog
          title={t`The old place of “${nameOf(placingEntry)}” is gone. Where should it go?`}
          confirm={t`Put it here`}
          space={space.id}
          notebook={placingEntry.notebook}
          without={[placingEntry.id]}
          onlyHere
          onClose={() => setPlacingEntry(undefined)}
          onPlace={async (place) => {
            await putEntryBack(placingEntry, place);
            return '';
          }}
        />
      )}
      {placing && (
        <MoveDialog
          title={t`The old place of “${placing.name}” is gone. Where should it go?`}
          space={space.id}
          without={[placing.id]}
          onClose={() => setPlacing(undefined)}
          onMove={async (intoSpace, folder) => {
            if (intoSpace !== space.id) return t`It can be put back into its own library only.`;
            library.putBack(placing.id, folder);
            setSaid(t`${placing.name}: put into ${library.find(folder)?.name ?? space.name}.`);
            return '';
          }}
        />
      )}
    </section>
  );
}

/** What a page or section was, with how many pages where it is more than itself. */
function entryWords({ isPage, pages, notebookName, binnedAt }: BinnedEntry): string {
  const within = pages - Number(isPage);
  const inside = plural(within, { one: '# page', other: '# pages' });
  const when = whenWords(binnedAt);
  if (within === 0)
    return isPage ? t`Page of ${notebookName}, put here ${when}` : t`Section of ${notebookName}, put here ${when}`;
  return isPage
    ? t`Page of ${notebookName}, with ${inside} below it, put here ${when}`
    : t`Section of ${notebookName}, with ${inside}, put here ${when}`;
}

function BinRow({
  name,
  face,
  about,
  onPutBack,
}: {
  name: string;
  face: React.ReactNode;
  about: string;
  onPutBack?: () => void;
}) {
  return (
    <li className="flex items-center gap-5 border-b border-base-300 py-3" data-testid="binned" data-name={name}>
      <span className="grid w-[64px] shrink-0 place-items-center">{face}</span>
      <div className="min-w-0 grow">
        <h3 className="text-[18px] [overflow-wrap:anywhere]">{name}</h3>
        <p className="text-quiet">{about}</p>
      </div>
      {onPutBack && <Button className="shrink-0" data-testid="put-back" onClick={onPutBack}>{t`Put back`}</Button>}
    </li>
  );
}

function NodeFace({ node }: { node: LibraryNode }) {
  if (node.kind === 'notebook') return <Cover node={node} width={56} />;
  if (node.kind === 'tag') return <TagIcon size={36} weight="thin" />;
  if (node.kind === 'lens' || node.kind === 'markKind') return <NodeIcon name={node.icon} size={36} />;
  if (node.kind === 'paper') return <FileIcon size={38} weight="thin" />;
  if (node.kind === 'stamp') return <StampIcon size={38} weight="thin" />;
  return <FolderSimpleIcon size={40} weight="thin" />;
}

/** What would be erased with some nodes, those inside folders included. */
function amount(
  library: Library,
  nodes: LibraryNode[],
  summaries: Map<string, { pageCount: number; size: number }>,
): { notebooks: number; pages: number; bytes: number } {
  const roots = new Set(nodes.map((node) => node.id));
  const isWithin = (id: string): boolean =>
    roots.has(id) || (library.find(id) !== undefined && isWithin(library.find(id)!.parent));
  const notebooks = [...library.nodes.values()].filter(
    (node) => node.kind === 'notebook' && node.inBin && isWithin(node.id),
  );
  const sum = (of: (summary: { pageCount: number; size: number }) => number) =>
    notebooks.reduce((total, node) => total + (summaries.has(node.id) ? of(summaries.get(node.id)!) : 0), 0);
  return { notebooks: notebooks.length, pages: sum((one) => one.pageCount), bytes: sum((one) => one.size) };
}
