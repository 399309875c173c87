import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { useSession } from '../server/session';
import { forgetNotebook } from './forgetting';
import { withoutNews } from './useNews';
import { useWorkspace } from './useWorkspace';

/** Asks what is shared whenever it may have changed, and takes off this device what is not any more. */
export function useKeepingShared(): void {
  const workspace = useWorkspace();
  const { spaces } = useSession();
  const own = useRef(spaces);
  useEffect(() => void (own.current = spaces), [spaces]);
  useQuery({
    queryKey: ['shared'],
    queryFn: () =>
      workspace.shared.refresh(async (gone) => {
        // Who came into the library itself holds it by right.
        for (const { space, notebook } of gone)
          if (!own.current.some((one) => one.id === space)) await forgetNotebook(workspace, space, notebook);
      }),
    refetchInterval: withoutNews,
    structuralSharing: false,
  });
}
