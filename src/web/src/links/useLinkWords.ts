import { t } from '@lingui/core/macro';
import { useMemo } from 'react';
import { useLibraries } from '../data/useLibrary';
import { useLocksOf } from '../data/useShelf';
import { useSession } from '../server/session';
import { readTarget, type Target } from '../model/target';

/** Says of what one may not see, or what is locked and shut, that it is so; undefined of all else. */
export function useHidden(): (target: Target) => string | undefined {
  const { spaces } = useSession();
  const libraries = useLibraries();
  const locks = useLocksOf(spaces);
  return useMemo(() => {
    const shut = new Set(
      locks.filter((lock) => lock.openUntil === null).map((lock) => `${lock.space}/${lock.notebook}`),
    );
    return (target) => {
      if (target.kind === 'web') return undefined;
      const isSeen = libraries.get(target.space)?.find(target.notebook) !== undefined;
      if (!isSeen) return t`something that you may not see`;
      return shut.has(`${target.space}/${target.notebook}`) ? t`something in a locked notebook` : undefined;
    };
  }, [libraries, locks]);
}

/** What a link is called: of what is hidden no name is told. */
export function useLinkWords(): (link: { target?: string; title?: string }) => string {
  const hidden = useHidden();
  return useMemo(
    () =>
      ({ target = '', title = '' }) => {
        const read = readTarget(target);
        return hidden(read) ?? (title || (read.kind === 'web' ? read.address : t`a page`));
      },
    [hidden],
  );
}
