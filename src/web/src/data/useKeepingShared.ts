import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { useSession } from '../server/session';
import { forgetNotebook, forgetOtherPages } from './forgetting';
import { withoutNews } from './useNews';
import { useWorkspace } from './useWorkspace';

/** What the device does not know yet it asks for; then it looks again, ms, and so many times. */
const soon = 3_000;
const mostTries = 3;

/** Asks what is shared whenever it may have changed, and takes off this device what is not any more. */
export function useKeepingShared(): void {
  const workspace = useWorkspace();
  const { spaces } = useSession();
  const own = useRef(spaces);
  useEffect(() => void (own.current = spaces), [spaces]);
  /** How often it was looked whether the device knows what was done to the notebooks. */
  const tries = useRef(0);
  useQuery({
    queryKey: ['shared'],
    queryFn: () =>
      workspace.shared.refresh(async (gone, changed) => {
        // Who came into the library itself holds it by right.
        const isGuest = (space: string) => !own.current.some((one) => one.id === space);
        for (const { space, notebook } of gone) if (isGuest(space)) await forgetNotebook(workspace, space, notebook);
        let isDone = true;
        for (const { space, notebooks } of changed)
          if (isGuest(space) && !(await forgetOtherPages(workspace, space, notebooks))) isDone = false;
        tries.current = isDone ? 0 : tries.current + 1;
        return isDone || tries.current > mostTries;
      }),
    refetchInterval: () => (tries.current > 0 && tries.current <= mostTries ? soon : withoutNews),
    structuralSharing: false,
  });
}
