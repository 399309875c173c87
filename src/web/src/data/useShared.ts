import { t } from '@lingui/core/macro';
import { useMemo, useSyncExternalStore } from 'react';
import { type Space, useSession } from '../server/session';
import type { SharedSpace } from '../sync/shared';
import { useWorkspace } from './useWorkspace';

/** What was shared with the person, library by library. */
export function useShared(): readonly SharedSpace[] {
  const { shared } = useWorkspace();
  return useSyncExternalStore(shared.subscribe, () => shared.spaces);
}

/** The space in which one opens a notebook: one's own or a group's, or as a guest that of whoever shared it. */
export function useSpaceOf(id: string, notebook: string): Space | undefined {
  const { spaces } = useSession();
  const shared = useShared();
  return useMemo(() => {
    const own = spaces.find((space) => space.id === id);
    if (own) return own;
    const there = shared.find(({ space }) => space === id);
    const role = there?.notebooks.find((one) => one.id === notebook)?.role;
    if (!there || !role) return undefined;
    return { id, name: there.group || t`Shared with me`, personal: false, role, touch: there.touch, isGuest: true };
  }, [spaces, shared, id, notebook]);
}

/** Whether one sees something of a space as a guest. */
export function useIsGuest(space: string): boolean {
  const { spaces } = useSession();
  return !spaces.some((one) => one.id === space);
}
