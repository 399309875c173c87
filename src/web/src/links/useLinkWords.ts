import { useMemo } from 'react';
import { useLibraries } from '../library/useLibrary';
import { useLocksOf } from '../library/useShelf';
import { useSession } from '../session/session';
import { readTarget } from './target';

/** What a link is called: of what one may not see, or what is locked and shut, no name is told. */
export function useLinkWords(): (link: { target?: string; title?: string }) => string {
  const { spaces } = useSession();
  const libraries = useLibraries();
  const locks = useLocksOf(spaces);
  return useMemo(() => {
    const shut = new Set(
      locks.filter((lock) => lock.openUntil === null).map((lock) => `${lock.space}/${lock.notebook}`),
    );
    return ({ target = '', title = '' }) => {
      const read = readTarget(target);
      if (read.kind === 'web') return title || read.address;
      const isSeen = libraries.get(read.space)?.find(read.notebook) !== undefined;
      if (!isSeen) return 'something that you may not see';
      return shut.has(`${read.space}/${read.notebook}`) ? 'something in a locked notebook' : title || 'a page';
    };
  }, [libraries, locks]);
}
