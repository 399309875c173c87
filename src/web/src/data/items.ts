import { plural, t } from '@lingui/core/macro';
import { whenGroup } from '../model/time';
import { compare } from './libraryStore';
import type { Item, LibraryNode, Summary } from '../model/items';
import type { Library } from './Library';
import type { View } from '../model/libraryView';

/** A folder or notebook as a list shows it. */
export function itemOfNode(library: Library, node: LibraryNode, summary: Summary | undefined): Item {
  return {
    space: library.space,
    kind: node.kind as 'folder' | 'notebook',
    id: node.id,
    notebook: node.id,
    folder: node.parent,
    title: node.name || t`Unnamed`,
    natural: node.natural,
    order: node.order,
    notebookName: node.name,
    number: 0,
    paper: node.paper,
    sequence: 0,
    createdAt: node.createdAt,
    writtenAt: summary?.writtenAt ?? null,
    size: summary?.size ?? 0,
    pinned: node.pinned,
    tags: library.tagsOf(node.tags),
    people: summary?.people ?? [],
    node,
    ...(summary ? { summary } : {}),
  };
}

/** Sorted as the view says; what is pinned stands first. What was never written on counts as just made. */
export function sorted(items: Item[], view: View): Item[] {
  const at = (item: Item) => item.writtenAt ?? item.createdAt;
  const ways: Record<View['sort'], (a: Item, b: Item) => number> = {
    written: (a, b) => at(b) - at(a),
    name: () => 0,
    created: (a, b) => b.createdAt - a.createdAt,
    kind: (a, b) => compare(a.kind, b.kind),
    size: (a, b) => b.size - a.size,
    own: (a, b) => compare(a.order, b.order),
  };
  const turn = view.reversed && view.sort !== 'own' ? -1 : 1;
  return items.toSorted(
    (a, b) =>
      Number(b.pinned) - Number(a.pinned) ||
      turn * (ways[view.sort](a, b) || compare(a.natural, b.natural)) ||
      compare(a.id, b.id),
  );
}

/** Folders by name, as people count, or in the order they were put in; what is pinned stands first. */
export function orderedFolders<T extends { pinned: boolean; natural: string; order: string; id: string }>(
  folders: readonly T[],
  own: boolean,
): T[] {
  return folders.toSorted(
    (a, b) =>
      Number(b.pinned) - Number(a.pinned) ||
      (own ? compare(a.order, b.order) : compare(a.natural, b.natural)) ||
      compare(a.id, b.id),
  );
}

export interface Group {
  name: string;
  items: Item[];
}

/** In groups as the view says, in the order of the items; one group without a name where they are not grouped. */
export function grouped(items: Item[], view: View, nameOf: (person: string) => string | undefined): Group[] {
  if (view.group === 'none') return [{ name: '', items }];
  const groups = new Map<string, Item[]>();
  const at = (item: Item) => (view.sort === 'created' ? item.createdAt : (item.writtenAt ?? item.createdAt));
  const add = (name: string, item: Item) => {
    const group = groups.get(name);
    if (group) group.push(item);
    else groups.set(name, [item]);
  };
  for (const item of items) {
    if (view.group === 'date') add(whenGroup(at(item)), item);
    else {
      const names =
        view.group === 'tag'
          ? item.tags.map((tag) => tag.path)
          : item.people.map(nameOf).filter((name) => name !== undefined);
      if (names.length === 0) add(view.group === 'tag' ? withoutTag : nobodyYet, item);
      for (const name of names) add(name, item);
    }
  }
  const entries = [...groups].map(([name, own]) => ({ name, items: own }));
  // Whatever is pinned, or sorted by another thing, dates follow each other.
  const turn = view.reversed && (view.sort === 'written' || view.sort === 'created') ? -1 : 1;
  return view.group === 'date'
    ? entries.sort((a, b) => turn * (at(b.items[0]!) - at(a.items[0]!)))
    : entries.sort((a, b) => Number(isRest(a.name)) - Number(isRest(b.name)) || a.name.localeCompare(b.name));
}

const withoutTag = t`Without a tag`;
const nobodyYet = t`Nobody yet`;

function isRest(name: string): boolean {
  return name === withoutTag || name === nobodyYet;
}

/** So many things, where they are not named one by one. */
export const thingsWords = (count: number): string => plural(count, { one: '# thing', other: '# things' });
