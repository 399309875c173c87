import { useSyncExternalStore } from 'react';

/** Something that is shown or not, wherever it is turned on and off from. */
export function onOff(): { turn: (on: boolean) => void; useIsOn: () => boolean } {
  let isOn = false;
  const listeners = new Set<() => void>();
  const subscribe = (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  };
  return {
    turn(on) {
      isOn = on;
      for (const listener of listeners) listener();
    },
    useIsOn: () => useSyncExternalStore(subscribe, () => isOn),
  };
}
