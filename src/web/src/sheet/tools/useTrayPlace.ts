import { useState } from 'react';

const key = 'quill.tray';

/** Where the tray is on this device: the side it was moved to, if it was, and whether it is folded to a dot. */
export interface TrayPlace {
  side?: 'left' | 'right';
  folded: boolean;
}

export function useTrayPlace(foldedAtFirst: boolean): [TrayPlace, (change: Partial<TrayPlace>) => void] {
  const [place, setPlace] = useState<TrayPlace>(() => ({ folded: foldedAtFirst, ...read() }));
  return [
    place,
    (change) => {
      const next = { ...place, ...change };
      localStorage.setItem(key, JSON.stringify(next));
      setPlace(next);
    },
  ];
}

function read(): Partial<TrayPlace> {
  try {
    return (JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<TrayPlace> | null) ?? {};
  } catch {
    return {};
  }
}
