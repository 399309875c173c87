import { createContext, useContext, useMemo, useSyncExternalStore } from 'react';
import type { Lectern, OwnLectern } from '../sync/lecterns';
import { useWorkspace } from './useWorkspace';

/** Who teaches from any notebook that one may see, without oneself in this window. */
export function useLecterns(): readonly Lectern[] {
  const { lecterns } = useWorkspace();
  return useSyncExternalStore(lecterns.subscribe, lecterns.all);
}

/** The lectern that one stands at in this window: another with every place that is lit. */
export function useOwnLectern(): OwnLectern | undefined {
  const { lecterns } = useWorkspace();
  return useSyncExternalStore(lecterns.subscribe, lecterns.own);
}

/** Whether one stands at the lectern of a notebook in this window. */
export function useTeachesIn(notebook: string): boolean {
  const { lecterns } = useWorkspace();
  return useSyncExternalStore(lecterns.subscribe, () => lecterns.own()?.notebook === notebook);
}

/** Whether somebody else, or oneself in another window, teaches from a notebook. */
export function useIsTaughtIn(notebook: string): boolean {
  const { lecterns } = useWorkspace();
  return useSyncExternalStore(lecterns.subscribe, () => lecterns.all().some((one) => one.notebook === notebook));
}

/** Whether one follows a lectern in a notebook, also while its leader's connection is away. */
export function useFollowsIn(notebook: string): boolean {
  const { lecterns } = useWorkspace();
  return useSyncExternalStore(lecterns.subscribe, () => lecterns.followsIn(notebook));
}

/** The lectern that one follows; empty for none. */
export function useFollowedLectern(): string {
  const { lecterns } = useWorkspace();
  return useSyncExternalStore(lecterns.subscribe, lecterns.followed);
}

/** Which curtains of a page are lifted from a lectern for all, and how its leader lifts them. */
export interface LiftedByLectern {
  lifted: readonly string[];
  /** For who stands at the lectern. */
  lift?: (curtain: string, isUp: boolean) => void;
}

const noneLifted: readonly string[] = [];
export const LiftedContext = createContext<LiftedByLectern>({ lifted: noneLifted });

/** The same for what lies on the page that is shown. */
export const useLiftedByLectern = (): LiftedByLectern => useContext(LiftedContext);

/** The same for a page, as one who leads or follows there. */
export function useLiftedOn(page: string): LiftedByLectern {
  const { lecterns } = useWorkspace();
  const lifted = useSyncExternalStore(lecterns.subscribe, () => lecterns.shownOn(page)?.lifted ?? noneLifted);
  const leads = useSyncExternalStore(lecterns.subscribe, () => lecterns.own()?.page === page);
  return useMemo(
    () => (leads ? { lifted, lift: (curtain, isUp) => lecterns.lift(curtain, isUp) } : { lifted }),
    [lecterns, lifted, leads],
  );
}

/** Where the light falls on a page, and what the leader's hand does there. */
export function useLightOn(page: string): { spot: Lectern['spot']; hand: OwnLectern['hand'] } {
  const { lecterns } = useWorkspace();
  const spot = useSyncExternalStore(lecterns.subscribe, () => lecterns.shownOn(page)?.spot);
  const hand = useSyncExternalStore(lecterns.subscribe, () => {
    const own = lecterns.own();
    return own?.page === page ? own.hand : 'pen';
  });
  return { spot, hand };
}
