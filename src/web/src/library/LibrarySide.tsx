import { t } from '@lingui/core/macro';
import {
  BooksIcon,
  ClockCounterClockwiseIcon,
  type Icon,
  HandshakeIcon,
  NoteBlankIcon,
  NotePencilIcon,
  RepeatIcon,
  StarIcon,
  TagIcon,
  TrashIcon,
  UsersIcon,
} from '@phosphor-icons/react';
import { useState } from 'react';
import { useDroppable } from '@dnd-kit/core';
import { Link } from 'react-router';
import { useSession } from '../server/session';
import { FolderTree } from './FolderTree';
import { NodeIcon } from '../ui/NodeIcon';
import type { Library } from '../data/Library';
import { useBinTimes } from '../data/useBinTimes';
import { useLibraries } from '../data/useLibrary';

/** Where one is in the library: a space with a folder or list in it, or a list over all spaces. */
export interface Place {
  /** A space's id, or “list”. */
  space: string;
  /** A folder's id, or the name of a list, or lens-ID. */
  place: string;
}

interface Entry {
  name: string;
  words: string;
  icon: Icon;
  count?: (libraries: Library[], binTimes: Map<string, number>) => number;
}

/** The lists that need no filing. */
export const lists: Entry[] = [
  { name: 'all', words: t`All notebooks`, icon: BooksIcon },
  { name: 'recent', words: t`Recent pages`, icon: ClockCounterClockwiseIcon },
  { name: 'often', words: t`Often used`, icon: RepeatIcon },
  { name: 'starred', words: t`Starred`, icon: StarIcon },
  { name: 'shared', words: t`From my groups`, icon: UsersIcon },
  { name: 'given', words: t`Shared with me`, icon: HandshakeIcon },
  {
    name: 'jots',
    words: t`Jots`,
    icon: NotePencilIcon,
    count: (libraries) => libraries.reduce((sum, one) => sum + one.jots().length, 0),
  },
  { name: 'asides', words: t`Asides`, icon: NoteBlankIcon },
  { name: 'tags', words: t`Tags`, icon: TagIcon },
  {
    name: 'bin',
    words: t`Bin`,
    icon: TrashIcon,
    count: (libraries, times) => libraries.reduce((sum, one) => sum + one.bin(times).length, 0),
  },
];

/** Folder trees, lenses, and the lists: visible from everywhere in the library. */
export function LibrarySide({
  at,
  made,
  whereOf,
  onNewFolder,
}: {
  at: Place;
  made?: string;
  /** What a new folder of a library is made in. */
  whereOf: (space: string) => string;
  onNewFolder: (space: string) => void;
}) {
  const { spaces } = useSession();
  const libraries = useLibraries();
  const binTimes = useBinTimes();
  const [scroller, setScroller] = useState<HTMLElement | null>(null);
  const all = [...(libraries?.values() ?? [])];
  const lenses = all.flatMap((library) => library.lenses().map((lens) => ({ library, lens })));
  return (
    <aside
      ref={setScroller}
      aria-label={t`Folders and lists`}
      className="h-full w-[236px] shrink-0 overflow-y-auto border-e border-base-300 px-2.5 py-5"
    >
      {[...spaces]
        .sort((a, b) => Number(a.personal) - Number(b.personal))
        .map((one) => (
          <FolderTree
            key={one.id}
            space={one}
            chosen={one.id === at.space ? at.place : undefined}
            scroller={scroller}
            where={whereOf(one.id)}
            {...(made ? { made } : {})}
            onNewFolder={() => onNewFolder(one.id)}
          />
        ))}
      {lenses.length > 0 && (
        <nav aria-label={t`Lenses`} className="mb-4">
          <h2 className="px-2 py-1.5 text-[17px]">{t`Lenses`}</h2>
          {lenses.map(({ library, lens }) => (
            <SideLink
              key={lens.id}
              to={`/library/${library.space}/lens-${lens.id}`}
              isHere={at.place === `lens-${lens.id}`}
              testId="lens"
              name={lens.name}
              icon={<NodeIcon name={lens.icon} />}
            />
          ))}
        </nav>
      )}
      <nav aria-label={t`Lists`} className="border-t border-base-300 pt-3">
        {lists.map(({ name, words, icon: Shown, count }) => {
          const number = count?.(all, binTimes) ?? 0;
          const link = (
            <SideLink
              key={name}
              to={`/library/list/${name}`}
              isHere={at.space === 'list' && at.place === name}
              testId={`list-${name}`}
              name={words}
              icon={<Shown size={18} weight="light" />}
              count={number}
            />
          );
          return name === 'bin' ? <BinTarget key={name}>{link}</BinTarget> : link;
        })}
      </nav>
    </aside>
  );
}

/** The bin takes what is dropped on it. */
function BinTarget({ children }: { children: React.ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: 'bin' });
  return (
    <div ref={setNodeRef} className={`rounded-md ${isOver ? 'outline-2 outline-accent' : ''}`}>
      {children}
    </div>
  );
}

function SideLink({
  to,
  isHere,
  name,
  icon,
  count = 0,
  testId,
}: {
  to: string;
  isHere: boolean;
  name: string;
  icon: React.ReactNode;
  count?: number;
  testId: string;
}) {
  return (
    <Link
      to={to}
      data-testid={testId}
      data-name={name}
      aria-current={isHere ? 'page' : undefined}
      className={`flex h-9 items-center gap-2.5 rounded-md ps-3 pe-2 hover:bg-base-200 ${isHere ? 'bg-base-200 font-semibold' : ''}`}
    >
      {icon}
      <span className="grow truncate">{name}</span>
      {count > 0 && <span className="text-[13px] font-normal text-quiet">{count}</span>}
    </Link>
  );
}
