import { may } from '../data/rights';
import { t } from '@lingui/core/macro';
import type { Space } from '../server/session';
import { itemOfNode, orderedFolders } from '../data/items';
import { lists, type Place } from './LibrarySide';
import { type Item, type LibraryNode, root, type Summary } from '../model/items';
import type { Library } from '../data/Library';
import type { Personal } from '../data/usePersonal';
import type { View } from '../model/libraryView';

/** A folder, list or lens, with what it is called and what lies in it. */
export interface ShownPlace {
  title: string;
  above: string;
  libraries: Library[];
  /** The things in it that the device knows. */
  items: Item[];
  /** The question to ask for what it does not know. */
  rule?: string;
  folders: Item[];
  node?: LibraryNode;
  asItem?: Item;
  lens?: LibraryNode;
  /** The library that the lens itself lies in. */
  keeper?: Library;
  /** What stands here as a question, so that it can be narrowed down; undefined where only the things themselves say it. */
  holds?: string;
  /** Whether its own order says something, as with “often used”. */
  keepsOrder?: boolean;
  note?: string;
  empty: { title: string; words: string };
}

const emptyWords: Record<string, { title: string; words: string }> = {
  all: { title: t`No notebooks yet`, words: t`Make one with “New notebook” in a folder, or jot something down.` },
  recent: { title: t`Nothing was written yet`, words: t`The pages written on last will stand here.` },
  often: { title: t`Nothing was opened yet`, words: t`What you open often and lately comes to stand here.` },
  starred: { title: t`Nothing is starred`, words: t`Star a notebook, folder or page by its menu to have it here.` },
  shared: {
    title: t`Nobody has shared anything yet`,
    words: t`Notebooks that others of your group made will stand here.`,
  },
  jots: {
    title: t`No jots are waiting`,
    words: t`Press “Jot” anywhere to write at once. It waits here until you file it: drag it to a folder, or choose “File it”.`,
  },
};

export function placeOf(
  at: Place,
  libraries: Map<string, Library>,
  spaces: Space[],
  summaries: Map<string, Summary>,
  personal: Personal | undefined,
  person: string,
  view: View,
): ShownPlace {
  const all = [...libraries.values()];
  const item = (library: Library, node: LibraryNode) => itemOfNode(library, node, summaries.get(node.id));
  if (at.space === 'list') {
    const words = lists.find((list) => list.name === at.place)?.words ?? t`Library`;
    const base = {
      title: words,
      above: t`Library`,
      libraries: all,
      items: [],
      folders: [],
      empty: emptyWords[at.place] ?? emptyWords.all!,
    };
    switch (at.place) {
      case 'recent':
        return { ...base, rule: JSON.stringify({ all: [{ kind: 'page' }, { written: '1970-01-01/' }] }) };
      case 'starred':
        return {
          ...base,
          rule: JSON.stringify({ all: [{ kind: 'page' }, { starred: true }] }),
          holds: JSON.stringify({ all: [{ starred: true }] }),
          items: all.flatMap((library) =>
            [...library.nodes.values()]
              .filter((node) => !node.inBin && personal?.stars.has(node.id))
              .map((node) => item(library, node)),
          ),
        };
      case 'often': {
        const used = personal?.often() ?? [];
        const items = used
          .map(({ space, notebook }) => ({ library: libraries.get(space), node: libraries.get(space)?.find(notebook) }))
          .flatMap(({ library, node }) => (library && node && !node.inBin ? [item(library, node)] : []));
        return {
          ...base,
          items: items.slice(0, 50),
          keepsOrder: true,
          note: t`A visit counts half as much after a fortnight, a quarter after four weeks.`,
        };
      }
      case 'shared': {
        const groups = spaces.filter((space) => !space.personal).map((space) => libraries.get(space.id)!);
        return {
          ...base,
          items: groups.flatMap((library) =>
            library
              .allNotebooks(root)
              .filter((node) => node.createdBy !== person)
              .map((node) => item(library, node)),
          ),
        };
      }
      case 'jots':
        return { ...base, items: all.flatMap((library) => library.jots().map((node) => item(library, node))) };
      default:
        return {
          ...base,
          items: all.flatMap((library) => library.allNotebooks(root).map((node) => item(library, node))),
        };
    }
  }

  const library = libraries.get(at.space)!;
  const space = spaces.find((one) => one.id === at.space)!;
  if (at.place.startsWith('lens-')) {
    const lens = library.find(at.place.slice('lens-'.length));
    const asked = lens?.lensSpace ? (libraries.get(lens.lensSpace) ?? library) : library;
    return {
      title: lens?.name ?? t`Lens`,
      above: t`Lens on ${spaces.find((one) => one.id === asked.space)?.name ?? ''}`,
      libraries: [asked],
      items: [],
      folders: [],
      ...(lens ? { rule: lens.rule ?? '{"all":[]}', lens, keeper: library } : {}),
      ...(lens?.rule && namesDeletedTag(lens.rule, asked)
        ? { note: t`This lens names a tag that is no longer there. Nothing carries it, so that part finds nothing.` }
        : {}),
      empty: lens
        ? { title: t`Nothing matches this lens now`, words: t`It is asked again whenever you open it.` }
        : { title: t`This lens is no longer there`, words: t`It was put into the bin, or belongs to somebody else.` },
    };
  }

  const node = library.find(at.place);
  const isThere = at.place === root || (node?.kind === 'folder' && !node.inBin);
  const notebooks = view.deep ? library.allNotebooks(at.place) : library.inside(at.place, 'notebook');
  return {
    title: node?.name ?? space.name,
    above: [node ? space.name : t`Library`, ...library.pathOf(at.place).map((one) => one.name)].join(' / '),
    libraries: [library],
    items: isThere ? notebooks.map((one) => item(library, one)) : [],
    folders: isThere
      ? orderedFolders(library.inside(at.place, 'folder'), view.sort === 'own').map((one) => item(library, one))
      : [],
    ...(node ? { node, asItem: item(library, node) } : {}),
    holds: JSON.stringify({ all: node ? [{ within: node.id }] : [] }),
    empty: !isThere
      ? { title: t`This folder is not here`, words: t`It is in the bin, or was erased from it.` }
      : {
          title: t`No notebooks here yet`,
          words: !may(space, 'Write')
            ? t`The writers of this library have not put any here.`
            : t`Make one with “New notebook”, or drag one here from another folder.`,
        },
  };
}

function namesDeletedTag(rule: string, library: Library): boolean {
  const named = [...rule.matchAll(/"tag":"([0-9a-f-]{36})"/g)].map((match) => match[1]!);
  return named.some((id) => library.tagsOf([id]).length === 0);
}
