import { useMemo, useSyncExternalStore } from 'react';

/** Whether the screen is as a media query says. */
export function useMedia(query: string): boolean {
  const media = useMemo(() => matchMedia(query), [query]);
  return useSyncExternalStore(
    (listener) => {
      media.addEventListener('change', listener);
      return () => media.removeEventListener('change', listener);
    },
    () => media.matches,
  );
}
