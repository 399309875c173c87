import { createContext, useContext, useSyncExternalStore } from 'react';
import type { Lectern, OwnLectern } from '../sync/lecterns';
import { useWorkspace } from './useWorkspace';

/** Who teaches from any notebook that one may see, without oneself in this window. */
export function useLecterns(): readonly Lectern[] {
  const { lecterns } = useWorkspace();
  return useSyncExternalStore(lecterns.subscribe, lecterns.all);
}

/** The lectern that one stands at in this window. */
export function useOwnLectern(): OwnLectern | undefined {
  const { lecterns } = useWorkspace();
  return useSyncExternalStore(lecterns.subscribe, lecterns.own);
}

/** The lectern that one follows; empty for none. */
export function useFollowedLectern(): string {
  const { lecterns } = useWorkspace();
  return useSyncExternalStore(lecterns.subscribe, lecterns.followed);
}

/** What a lectern says of the page that is shown: which curtains are lifted for all, and how its leader lifts them. */
export interface ShownByLectern {
  lifted: readonly string[];
  /** For who stands at the lectern. */
  lift?: (curtain: string, isUp: boolean) => void;
}

const nothingShown: ShownByLectern = { lifted: [] };
export const LecternContext = createContext<ShownByLectern>(nothingShown);

/** What a lectern says of the page here. */
export const useShownByLectern = (): ShownByLectern => useContext(LecternContext);

/** The same for a page, as one who leads or follows there. */
export function useLecternOn(page: string): ShownByLectern & { spot: Lectern['spot']; hand: OwnLectern['hand'] } {
  const { lecterns } = useWorkspace();
  const own = useOwnLectern();
  const followed = useFollowedLectern();
  const all = useLecterns();
  if (own?.page === page)
    return {
      lifted: own.lifted,
      spot: own.spot,
      hand: own.hand,
      lift: (curtain, isUp) => lecterns.lift(curtain, isUp),
    };
  const shown = all.find((one) => one.id === followed);
  return shown?.page === page
    ? { lifted: shown.lifted, spot: shown.spot, hand: 'pen' }
    : { ...nothingShown, spot: undefined, hand: 'pen' };
}
