import { useSyncExternalStore } from 'react';

let isOpen = false;
const listeners = new Set<() => void>();

/** Shows the sheet of keys, or puts it away. */
export function openKeys(on: boolean): void {
  isOpen = on;
  for (const listener of listeners) listener();
}

export function useKeysOpen(): boolean {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => isOpen,
  );
}
