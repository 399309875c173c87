import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { readTarget, type Target } from '../model/target';
import { useHidden } from '../links/useLinkWords';
import { type NotebookEntry, openPath, root, type ShownPage, thumbnailPath } from '../model/items';
import { inkOf } from '../model/colours';
import { useLibrary } from '../data/useLibrary';
import { type Notebook, useNotebook } from '../data/useNotebook';
import type { ShownSpot } from '../data/spots';
import { useWorkspace } from '../data/useWorkspace';

interface Node {
  id: string;
  words: string;
  path: string;
  colour: string;
  group: string;
  links: number;
  /** Address of its picture, where one is known. */
  face?: string;
}

const width = 1000;
const height = 700;
const edge = 90;
const mostNotebooks = 200;
const mostTargets = 40;

/** The web of pages: the links in a notebook or folder as a drawn graph; what is linked stands together. */
export function WebScreen() {
  const { space = '', notebook = '' } = useParams();
  return notebook === 'folder' ? (
    <Web space={space} notebook="" own={undefined} />
  ) : (
    <NotebookWeb space={space} notebook={notebook} />
  );
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
  const notebooks = isFolder
    ? (library?.allNotebooks(folder) ?? []).slice(0, mostNotebooks).map((node) => node.id)
    : [notebook];
  const { data: links = [] } = useQuery({
    queryKey: ['web', space, notebooks.join()],
    enabled: notebooks.length > 0,
    queryFn: () => workspace.list<ShownSpot[]>(`/api/spaces/${space}/links`, `?notebooks=${notebooks.join()}`),
    refetchOnMount: 'always',
  });
  const hidden = useHidden();
  const known = useTargets(space, notebook, links, hidden);
  const { nodes, pairs } = useMemo(
    () =>
      graphOf(
        links,
        isFolder ? [] : (own?.pages ?? []),
        space,
        notebook,
        (id) => library?.find(id)?.name ?? t`A notebook`,
        (id) => library?.find(id)?.colour ?? '',
        (id) => own?.sectionOf(id)?.colour ?? '',
        all,
        known,
        hidden,
      ),
    [links, known, hidden, own, isFolder, space, notebook, library, all],
  );
  const places = useMemo(
    () => workspace.core.PlannerBridge.LayWeb(nodes.length, pairs.flat(), groupNumbers(nodes)),
    [workspace, nodes, pairs],
  );
  const at = (i: number) => ({
    x: edge + places[i * 2]! * (width - 2 * edge),
    y: edge / 1.5 + places[i * 2 + 1]! * (height - edge * 1.5),
  });
  const across = Math.min(52, 130 / Math.sqrt(nodes.length));
  const name = isFolder
    ? folder === root
      ? t`The whole library`
      : (library?.find(folder)?.name ?? '')
    : (library?.find(notebook)?.name ?? '');
  const near = new Set(
    shown === undefined
      ? []
      : pairs
          .filter((pair) => pair.some((i) => nodes[i]!.id === shown))
          .flatMap((pair) => pair.map((i) => nodes[i]!.id)),
  );
  const sizeOf = (node: Node) =>
    [across, across * 1.36].map((edge) => edge * (1 + Math.min(4, node.links) * 0.1)) as [number, number];
  const opacityOf = (node: Node) => (shown !== undefined && shown !== node.id && !near.has(node.id) ? 0.35 : 1);
  return (
    <div className="flex h-full flex-col px-10 pt-6 max-sm:px-4" data-testid="web">
      <header className="flex items-end gap-3 border-b border-base-300 pb-3">
        <div className="grow">
          <p className="text-quiet">{t`Web of pages`}</p>
          <h1 className="text-[30px] leading-tight">{name}</h1>
        </div>
        {!isFolder && (
          <label className="flex h-10 cursor-pointer items-center gap-2 text-quiet">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={all}
              data-testid="web-all"
              onChange={(event) => setAll(event.target.checked)}
            />{' '}
            {t`pages without links too`}
          </label>
        )}
        <Link
          to={isFolder ? `/library/${space}${folder === root ? '' : `/${folder}`}` : openPath(space, notebook)}
          className="quiet-button"
        >{t`Back`}</Link>
      </header>
      {nodes.length === 0 ? (
        <p className="py-8 text-quiet">{t`No page here leads to another yet. Select something on a page with the loop and choose “Link”.`}</p>
      ) : (
        <svg
          viewBox={`0 0 ${width} ${height}`}
          className="min-h-0 w-full grow"
          role="group"
          aria-label={t`Pages of ${name} and the links between them`}
        >
          {pairs.map(([from, to], i) => {
            const [a, b] = [at(from), at(to)];
            const isNear = shown !== undefined && (nodes[from]!.id === shown || nodes[to]!.id === shown);
            return (
              <path
                key={i}
                d={`M${a.x} ${a.y}Q${(a.x + b.x) / 2 + (b.y - a.y) * 0.09} ${(a.y + b.y) / 2 - (b.x - a.x) * 0.09} ${b.x} ${b.y}`}
                fill="none"
                stroke={isNear ? 'var(--color-accent)' : 'var(--color-quiet)'}
                strokeOpacity={isNear ? 1 : 0.45}
                strokeWidth={isNear ? 2 : 1.2}
                data-testid="web-link"
              />
            );
          })}
          {nodes.map((node, i) => {
            const { x, y } = at(i);
            const [wide, high] = sizeOf(node);
            return (
              <a
                key={node.id}
                href={node.path}
                data-testid="web-page"
                data-name={node.words}
                aria-label={`${node.words}, ${plural(node.links, { one: '# link', other: '# links' })}`}
                style={{ opacity: opacityOf(node) }}
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
                <rect x={x - wide / 2} y={y - high / 2} width={wide} height={high} rx="1.5" fill="var(--color-paper)" />
                {node.face && (
                  <image
                    href={node.face}
                    x={x - wide / 2}
                    y={y - high / 2}
                    width={wide}
                    height={high}
                    preserveAspectRatio="xMidYMin slice"
                  />
                )}
                <rect
                  x={x - wide / 2}
                  y={y - high / 2}
                  width={wide}
                  height={high}
                  rx="1.5"
                  fill="none"
                  stroke={inkOf[node.colour] ?? 'var(--color-spruce)'}
                  strokeWidth="2"
                />
              </a>
            );
          })}
          {/* Over all the faces, so that every name can be read. */}
          {nodes.map((node, i) => (
            <text
              key={node.id}
              x={at(i).x}
              y={at(i).y + sizeOf(node)[1] / 2 + 15}
              textAnchor="middle"
              fontSize="13"
              fill="var(--color-base-content)"
              stroke="var(--color-base-100)"
              strokeWidth="4"
              strokeLinejoin="round"
              paintOrder="stroke"
              aria-hidden="true"
              className="pointer-events-none"
              style={{ opacity: opacityOf(node) }}
            >
              {node.words.length > 26 ? `${node.words.slice(0, 25)}…` : node.words}
            </text>
          ))}
        </svg>
      )}
    </div>
  );
}

/** The pages of the notebook itself and of those that links lead to, by id: their titles and pictures. */
function useTargets(
  space: string,
  notebook: string,
  links: ShownSpot[],
  hidden: (target: Target) => string | undefined,
): Map<string, ShownPage> {
  const workspace = useWorkspace();
  const targets = links
    .map((link) => readTarget(link.target))
    .flatMap((target) =>
      'page' in target && target.space === space && hidden(target) === undefined ? [target.notebook] : [],
    );
  const notebooks = [...new Set([...(notebook ? [notebook] : []), ...targets])].slice(0, mostTargets);
  const { data } = useQuery({
    queryKey: ['web-pages', space, notebooks.join()],
    queryFn: () =>
      Promise.all(
        notebooks.map((one) =>
          workspace.list<ShownPage[]>(`/api/spaces/${space}/notebooks/${one}/pages`).catch((): ShownPage[] => []),
        ),
      ),
    refetchOnMount: 'always',
  });
  return useMemo(() => new Map((data ?? []).flat().map((page) => [page.id, page])), [data]);
}

/** Pages as nodes, links inside as pairs of them, each pair once; a link to a whole notebook leads to a node of its own. */
function graphOf(
  links: ShownSpot[],
  pages: NotebookEntry[],
  space: string,
  own: string,
  nameOf: (notebook: string) => string,
  colourOf: (notebook: string) => string,
  sectionColour: (page: string) => string,
  all: boolean,
  known: Map<string, ShownPage>,
  hidden: (target: Target) => string | undefined,
): { nodes: Node[]; pairs: [number, number][] } {
  const nodes = new Map<string, Node>();
  const put = (id: string, words: string, path: string, colour: string, group: string) => {
    const node = nodes.get(id) ?? { id, words, path, colour, group, links: 0 };
    nodes.set(id, node);
    return node;
  };
  const page = (id: string, notebook: string, words: string) =>
    put(
      id,
      words,
      openPath(space, notebook, id),
      (notebook === own && sectionColour(id)) || colourOf(notebook),
      notebook,
    );
  const titles = new Map([...known.values(), ...pages].map((one) => [one.id, one.title || t`Page ${one.number}`]));
  const faces = new Map([...known].map(([id, one]) => [id, thumbnailPath(space, one)]));
  for (const link of links) {
    titles.set(link.page, link.pageTitle || `Page ${link.pageNumber}`);
    faces.set(link.page, thumbnailPath(space, { id: link.page, paper: link.paper, sequence: link.sequence }));
  }
  if (all) for (const one of pages) page(one.id, own, titles.get(one.id)!);
  const seen = new Set<string>();
  const pairs: [string, string][] = [];
  for (const link of links) {
    const target = readTarget(link.target);
    if (target.kind === 'web' || target.space !== space) continue;
    const from = page(link.page, link.notebook, titles.get(link.page)!);
    const to =
      'page' in target
        ? page(
            target.page,
            target.notebook,
            hidden(target) ?? titles.get(target.page) ?? (link.title || nameOf(target.notebook)),
          )
        : put(
            target.notebook,
            hidden(target) ?? nameOf(target.notebook),
            openPath(space, target.notebook),
            colourOf(target.notebook),
            target.notebook,
          );
    const key = [from.id, to.id].sort().join();
    if (from === to || seen.has(key)) continue;
    seen.add(key);
    from.links++;
    to.links++;
    pairs.push([from.id, to.id]);
  }
  const list = [...nodes.values()].map((node) => ({
    ...node,
    ...(faces.has(node.id) ? { face: faces.get(node.id)! } : {}),
  }));
  const index = new Map(list.map((node, i) => [node.id, i]));
  return { nodes: list, pairs: pairs.map(([from, to]) => [index.get(from)!, index.get(to)!]) };
}

function groupNumbers(nodes: Node[]): number[] {
  const groups = [...new Set(nodes.map((node) => node.group))];
  return nodes.map((node) => groups.indexOf(node.group));
}
