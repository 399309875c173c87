import { useMemo, useSyncExternalStore } from 'react';

/** A screen as narrow as a phone's; Tailwind's `max-sm`. */
export const phone = '(max-width: 639px)';

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
