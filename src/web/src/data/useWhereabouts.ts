import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { addressOf } from '../sync/address';
import type { Standing } from '../sync/whereabouts';
import { useWorkspace } from './useWorkspace';

/** Who looks at something at this moment, in which notebook and where it is known on which page. */
export function useStandings(): readonly Standing[] {
  const { whereabouts } = useWorkspace();
  return useSyncExternalStore(whereabouts.subscribe, whereabouts.all);
}

/** Those in a notebook, each person once: the place they came to last. */
export function useStandingIn(notebook: string): Standing[] {
  const all = useStandings();
  return useMemo(
    () => [...new Map(all.filter((one) => one.notebook === notebook).map((one) => [one.person, one])).values()],
    [all, notebook],
  );
}

/** Says where one looks, as long as it is shown. */
export function useStanding(space: string, notebook: string, page: string, active: boolean): void {
  const { whereabouts } = useWorkspace();
  useEffect(() => {
    if (active) whereabouts.stand(addressOf(space, 'notebook', notebook), page);
  }, [whereabouts, space, notebook, page, active]);
  useEffect(() => () => whereabouts.stand('', ''), [whereabouts]);
}

/** Whom one follows, and how many follow what is seen here. */
export function useFollowed(): { leader: string | undefined; followedBy: number } {
  const { whereabouts } = useWorkspace();
  const leader = useSyncExternalStore(whereabouts.subscribe, whereabouts.leader);
  const followedBy = useSyncExternalStore(whereabouts.subscribe, whereabouts.followedBy);
  return { leader, followedBy };
}
