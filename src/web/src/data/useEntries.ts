import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { sendJson, Unreachable } from '../server/api';
import { withoutNews } from './useNews';
import { addressOf } from '../sync/address';
import { clockChanges } from '../ui/clock';
import { type Workspace } from '../sync/workspace';
import { useWorkspace } from './useWorkspace';
import type { Item, NotebookEntry, Summary } from '../model/items';
import { itemOfNode } from './items';
import { keepTimes, timesHere } from './writtenTimes';
import type { Library } from './Library';
import type { View } from '../model/libraryView';

interface Entry {
  kind: number;
  id: string;
  notebook: string;
  parent: string;
  title: string;
  notebookName: string;
  number: number;
  paper: string;
  sequence: number;
  createdAt: number;
  writtenAt: number | null;
  tags: string[];
}

export interface Answer {
  total: number;
  items: Item[];
  /** Answered from what this device holds, so pages of notebooks that were never opened here are missing. */
  fromDevice: boolean;
}

const kinds = ['', 'folder', 'notebook', 'section', 'page'] as const;
const most = 500;

/** What a rule finds in some libraries; from the server, or without a connection from this device. Asked again whenever the library changes. */
export function useEntries(
  libraries: Library[],
  /** The question to each of them. */
  rules: readonly string[] | undefined,
  view: View,
  summaries: Map<string, Summary>,
  stars: Set<string>,
): Answer | undefined {
  const workspace = useWorkspace();
  const { data } = useQuery({
    queryKey: [
      'entries',
      libraries.map((library) => library.space).join(),
      rules?.join(),
      view.sort,
      view.reversed,
      ...libraries,
    ],
    queryFn: async () => {
      const answers = await Promise.all(
        libraries.map((library, i) => ask(workspace, library, rules![i]!, view, summaries, stars)),
      );
      return {
        total: answers.reduce((sum, one) => sum + one.total, 0),
        items: answers.flatMap((one) => one.items),
        fromDevice: answers.some((one) => one.fromDevice),
      };
    },
    enabled: rules !== undefined,
    placeholderData: (before: Answer | undefined) => before,
    queryKeyHashFn: (key) =>
      key.map((part) => (typeof part === 'object' ? String(versionOf(part as object)) : String(part))).join('|'),
    retry: false,
    refetchInterval: withoutNews,
  });
  return rules === undefined ? undefined : data;
}

const versions = new WeakMap<object, number>();
let lastVersion = 0;

/** A number for an object that is made anew with every change. */
function versionOf(library: object): number {
  let version = versions.get(library);
  if (version === undefined) versions.set(library, (version = ++lastVersion));
  return version;
}

async function ask(
  workspace: Workspace,
  library: Library,
  rule: string,
  view: View,
  summaries: Map<string, Summary>,
  stars: Set<string>,
): Promise<Answer> {
  const sort = view.sort === 'own' ? 'name' : view.sort;
  try {
    // What waits in the outbox must be there before the server is asked.
    await workspace.outbox.settled().catch((problem: unknown) => {
      // What the server cannot take at present is no reason not to look among the rest.
      if (problem instanceof Unreachable) throw problem;
    });
    const found = await sendJson<{ total: number; entries: Entry[] }>('POST', `/api/spaces/${library.space}/entries`, {
      rule,
      order: sort,
      descending: (sort === 'name' || sort === 'kind') === view.reversed,
      limit: most,
      clock: clockChanges(),
    });
    void keepTimes(
      workspace,
      library.space,
      found.entries.filter((entry) => entry.kind === 4),
    ).catch(() => {});
    return {
      total: found.total,
      items: found.entries.map((entry) => itemOfEntry(library, entry, summaries)),
      fromDevice: false,
    };
  } catch (problem) {
    if (!(problem instanceof Unreachable)) throw problem;
    return askDevice(workspace, library, rule, summaries, stars);
  }
}

function itemOfEntry(library: Library, entry: Entry, summaries: Map<string, Summary>): Item {
  const node = library.find(entry.id);
  if (node && entry.kind <= 2) return itemOfNode(library, node, summaries.get(node.id));
  return {
    space: library.space,
    kind: kinds[entry.kind] as Item['kind'],
    id: entry.id,
    notebook: entry.notebook,
    folder: entry.parent,
    title: entry.title || (entry.kind === 4 ? t`Page ${entry.number}` : t`Unnamed`),
    natural: '',
    order: '',
    notebookName: entry.notebookName,
    number: entry.number,
    paper: entry.paper,
    sequence: entry.sequence,
    createdAt: entry.createdAt,
    writtenAt: entry.writtenAt,
    size: 0,
    pinned: false,
    tags: library.tagsOf(entry.tags),
    people: [],
  };
}

/** Core answers from the library and the notebooks that this device holds. */
async function askDevice(
  workspace: Workspace,
  library: Library,
  rule: string,
  summaries: Map<string, Summary>,
  stars: Set<string>,
): Promise<Answer> {
  const held = await workspace.store.heldDocuments();
  const notebooks = [...library.nodes.values()].filter(
    (node) =>
      node.kind === 'notebook' &&
      !node.inBin &&
      (held.has(addressOf(library.space, 'notebook', node.id)) || held.has(node.id)),
  );
  const documents = await Promise.all(notebooks.map((node) => workspace.acquire(library.space, 'notebook', node.id)));
  const facts: Record<string, object> = {};
  const times = await timesHere(workspace, library.space);
  for (const [id, writtenAt] of times) facts[id] = { writtenAt };
  for (const id of stars) facts[id] = { ...facts[id], starred: true };
  for (const [id, { writtenAt, people }] of summaries) facts[id] = { writtenAt, people, starred: stars.has(id) };
  const { LibraryBridge, NotebookBridge } = workspace.core;
  const ids = new Set(
    JSON.parse(
      LibraryBridge.Ask(
        library.handle,
        rule,
        JSON.stringify(facts),
        documents.map((document) => document.handle),
        notebooks.map((node) => node.id),
        Date.now(),
        clockChanges().flatMap(({ since, minutes }) => [since, minutes]),
      ),
    ) as string[],
  );
  const items = [...ids]
    .map((id) => library.find(id))
    .filter((node) => node !== undefined)
    .map((node) => itemOfNode(library, node, summaries.get(node.id)));
  for (const [i, node] of notebooks.entries()) {
    const entries = JSON.parse(NotebookBridge.Outline(documents[i]!.handle, false)) as NotebookEntry[];
    for (const entry of entries.filter((one) => ids.has(one.id))) {
      items.push(
        itemOfEntry(
          library,
          {
            ...entry,
            kind: entry.kind === 'page' ? 4 : 3,
            notebook: node.id,
            parent: node.parent,
            notebookName: node.name,
            sequence: 0,
            writtenAt: times.get(entry.id) ?? null,
          },
          summaries,
        ),
      );
    }
    workspace.release(library.space, 'notebook', node.id);
  }
  return { total: items.length, items, fromDevice: true };
}
