import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { readTarget } from '../links/target';
import { type NotebookEntry, openPath, root } from '../library/model';
import { inkOf } from '../library/palette';
import { useLibrary } from '../library/useLibrary';
import { type Notebook, useNotebook } from '../page/useNotebook';
import type { ShownSpot } from '../spots/spots';
import { useWorkspace } from '../sync/workspace';

interface Node {
  id: string;
  words: string;
  path: string;
  colour: string;
  group: string;
  links: number;
}

const width = 1000;
const height = 700;
const edge = 70;
const mostNotebooks = 200;

/** The web of pages: the links in a notebook or folder as a drawn graph; what is linked stands together. */
export function WebScreen() {
  const { space = '', notebook = '' } = useParams();
  return notebook === 'folder' ? <Web space={space} notebook="" own={undefined} /> : <NotebookWeb space={space} notebook={notebook} />;
}

function NotebookWeb({ space, notebook }: { space: string; notebook: string }) {
  return <Web space={space} notebook={notebook} own={useNotebook(space, notebook)} />;
}

function Web({ space, notebook, own }: { space: string; notebook: string; own: Notebook | undefined }) {
  const [search] = useSearchParams();
  const folder = search.get('folder') ?? root;
  const isFolder = notebook === '';
  const library = useLibrary(space);
  const workspace = useWorkspace();
  const navigate = useNavigate();
  const [shown, setShown] = useState<string>();
  const [all, setAll] = useState(false);
  const notebooks = isFolder ? (library?.allNotebooks(folder) ?? []).slice(0, mostNotebooks).map((node) => node.id) : [notebook];
  const { data: links = [] } = useQuery({ queryKey: ['web', space, notebooks.join()], enabled: notebooks.length > 0, queryFn: () => workspace.list<ShownSpot[]>(`/api/spaces/${space}/links`, `?notebooks=${notebooks.join()}`), refetchOnMount: 'always' });
  const { nodes, pairs } = useMemo(() => graphOf(links, isFolder ? [] : (own?.pages ?? []), space, notebook, (id) => library?.find(id)?.name ?? 'A notebook', (id) => library?.find(id)?.colour ?? '', (id) => own?.sectionOf(id)?.colour ?? '', all), [links, own, isFolder, space, notebook, library, all]);
  const places = useMemo(() => workspace.core.PlannerBridge.LayWeb(nodes.length, pairs.flat(), groupNumbers(nodes)), [workspace, nodes, pairs]);
  const at = (i: number) => ({ x: edge + places[i * 2]! * (width - 2 * edge), y: edge / 2 + places[i * 2 + 1]! * (height - edge) });
  const name = isFolder ? (folder === root ? 'The whole library' : (library?.find(folder)?.name ?? '')) : (library?.find(notebook)?.name ?? '');
  const near = new Set(shown === undefined ? [] : pairs.filter((pair) => pair.some((i) => nodes[i]!.id === shown)).flatMap((pair) => pair.map((i) => nodes[i]!.id)));
  return (
    <div className="flex h-full flex-col px-10 pt-6 max-sm:px-4" data-testid="web">
      <header className="flex items-end gap-3 border-b border-base-300 pb-3">
        <div className="grow">
          <p className="text-quiet">Web of pages</p>
          <h1 className="text-[30px] leading-tight">{name}</h1>
        </div>
        {!isFolder && (
          <label className="flex h-10 cursor-pointer items-center gap-2 text-quiet">
            <input type="checkbox" className="checkbox checkbox-sm" checked={all} data-testid="web-all" onChange={(event) => setAll(event.target.checked)} /> pages without links too
          </label>
        )}
        <Link to={isFolder ? `/library/${space}${folder === root ? '' : `/${folder}`}` : openPath(space, notebook)} className="quiet-button">
          Back
        </Link>
      </header>
      {nodes.length === 0 ? (
        <p className="py-8 text-quiet">No page here leads to another yet. Select something on a page with the loop and choose “Link”.</p>
      ) : (
        <svg viewBox={`0 0 ${width} ${height}`} className="min-h-0 w-full grow" role="group" aria-label={`Pages of ${name} and the links between them`}>
          {pairs.map(([from, to], i) => {
            const [a, b] = [at(from), at(to)];
            const isNear = shown !== undefined && (nodes[from]!.id === shown || nodes[to]!.id === shown);
            return <path key={i} d={`M${a.x} ${a.y}Q${(a.x + b.x) / 2 + (b.y - a.y) * 0.09} ${(a.y + b.y) / 2 - (b.x - a.x) * 0.09} ${b.x} ${b.y}`} fill="none" stroke={isNear ? 'var(--color-accent)' : 'var(--color-quiet)'} strokeOpacity={isNear ? 1 : 0.45} strokeWidth={isNear ? 2 : 1.2} data-testid="web-link" />;
          })}
          {nodes.map((node, i) => {
            const { x, y } = at(i);
            const size = Math.min(26, 11 + node.links * 2.2);
            const dim = shown !== undefined && shown !== node.id && !near.has(node.id);
            return (
              <a
                key={node.id}
                href={node.path}
                data-testid="web-page"
                data-name={node.words}
                aria-label={`${node.words}, ${node.links} ${node.links === 1 ? 'link' : 'links'}`}
                style={{ opacity: dim ? 0.35 : 1 }}
                onPointerEnter={() => setShown(node.id)}
                onPointerLeave={() => setShown(undefined)}
                onFocus={() => setShown(node.id)}
                onBlur={() => setShown(undefined)}
                onClick={(event) => {
                  event.preventDefault();
                  void navigate(node.path);
                }}
              >
                <circle cx={x} cy={y} r="22" fill="transparent" />
                <rect x={x - size * 0.72} y={y - size} width={size * 1.44} height={size * 2} rx="1.5" fill="var(--color-paper)" stroke={inkOf[node.colour] ?? 'var(--color-spruce)'} strokeWidth="2" />
                <text x={x} y={y + size + 15} textAnchor="middle" fontSize="13" fill="var(--color-base-content)">
                  {node.words.length > 26 ? `${node.words.slice(0, 25)}…` : node.words}
                </text>
              </a>
            );
          })}
        </svg>
      )}
    </div>
  );
}

/** Pages as nodes, links inside as pairs of them, each pair once; a link to a whole notebook leads to a node of its own. */
function graphOf(
  links: ShownSpot[], pages: NotebookEntry[], space: string, own: string, nameOf: (notebook: string) => string, colourOf: (notebook: string) => string, sectionColour: (page: string) => string, all: boolean,
): { nodes: Node[]; pairs: [number, number][] } {
  const nodes = new Map<string, Node>();
  const put = (id: string, words: string, path: string, colour: string, group: string) => {
    const node = nodes.get(id) ?? { id, words, path, colour, group, links: 0 };
    nodes.set(id, node);
    return node;
  };
  const page = (id: string, notebook: string, words: string) => put(id, words, openPath(space, notebook, id), (notebook === own && sectionColour(id)) || colourOf(notebook), notebook);
  const titles = new Map(pages.map((one) => [one.id, one.title || `Page ${one.number}`]));
  for (const link of links) titles.set(link.page, link.pageTitle || `Page ${link.pageNumber}`);
  if (all) for (const one of pages) page(one.id, own, titles.get(one.id)!);
  const seen = new Set<string>();
  const pairs: [string, string][] = [];
  for (const link of links) {
    const target = readTarget(link.target);
    if (target.kind === 'web' || target.space !== space) continue;
    const from = page(link.page, link.notebook, titles.get(link.page)!);
    const to = 'page' in target ? page(target.page, target.notebook, titles.get(target.page) ?? (link.title || nameOf(target.notebook))) : put(target.notebook, nameOf(target.notebook), openPath(space, target.notebook), colourOf(target.notebook), target.notebook);
    const key = [from.id, to.id].sort().join();
    if (from === to || seen.has(key)) continue;
    seen.add(key);
    from.links++;
    to.links++;
    pairs.push([from.id, to.id]);
  }
  const list = [...nodes.values()];
  const index = new Map(list.map((node, i) => [node.id, i]));
  return { nodes: list, pairs: pairs.map(([from, to]) => [index.get(from)!, index.get(to)!]) };
}

function groupNumbers(nodes: Node[]): number[] {
  const groups = [...new Set(nodes.map((node) => node.group))];
  return nodes.map((node) => groups.indexOf(node.group));
}
