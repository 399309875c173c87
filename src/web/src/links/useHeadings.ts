import { useQuery } from '@tanstack/react-query';
import { useDeferredValue } from 'react';
import { getJson, Unreachable } from '../server/api';
import type { ShownSpot } from '../data/spots';

const leastTyped = 2;
const nothing: ShownSpot[] = [];

/** Headings of some libraries whose words hold what was typed, once that is more than a letter; none without a connection. */
export function useHeadings(spaces: string[], typed: string): ShownSpot[] {
  const text = useDeferredValue(typed.trim().slice(0, 200));
  const { data = nothing } = useQuery({
    queryKey: ['headings', spaces.join(), text],
    enabled: text.length >= leastTyped,
    queryFn: async () =>
      (
        await Promise.all(
          spaces.map((space) =>
            getJson<ShownSpot[]>(`/api/spaces/${space}/headings?titled=${encodeURIComponent(text)}`),
          ),
        ).catch((problem: unknown) => {
          if (problem instanceof Unreachable) return [];
          throw problem;
        })
      ).flat(),
    placeholderData: (before: ShownSpot[] | undefined) => before,
    retry: false,
  });
  return data;
}
