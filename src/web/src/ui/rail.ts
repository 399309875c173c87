import { useSyncExternalStore } from 'react';

let isOpen = false;
const listeners = new Set<() => void>();

/** Has the rail back where it is folded away, or folds it again. */
export function openRail(on: boolean): void {
  isOpen = on;
  for (const listener of listeners) listener();
}

export function useRailOpen(): boolean {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => isOpen,
  );
}
