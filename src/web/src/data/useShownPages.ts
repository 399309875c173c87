import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { ShownPage } from '../model/items';
import { Refused } from '../server/api';
import { withoutNews } from './useNews';
import { useWorkspace } from './useWorkspace';

/** The pages of a notebook as the server knows them, with the numbers that the addresses of their pictures carry; by id. */
export function useShownPages(space: string, notebook: string): Map<string, ShownPage> {
  const { data } = usePages(space, notebook);
  return useMemo(() => new Map((data ?? []).map((page) => [page.id, page])), [data]);
}

/** One of them; or that it is gone. Undefined as long as that is not known, as without a connection. */
export function useShownPage(space: string, notebook: string, id: string): ShownPage | 'gone' | undefined {
  const { data, error } = usePages(space, notebook);
  return data?.find((page) => page.id === id) ?? (data || error instanceof Refused ? 'gone' : undefined);
}

function usePages(space: string, notebook: string) {
  const workspace = useWorkspace();
  return useQuery({
    queryKey: ['pages', notebook],
    queryFn: () => workspace.list<ShownPage[]>(`/api/spaces/${space}/notebooks/${notebook}/pages`),
    refetchInterval: withoutNews,
    refetchOnMount: 'always',
  });
}
