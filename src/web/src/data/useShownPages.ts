import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { ShownPage } from '../model/items';
import { withoutNews } from './useNews';
import { useWorkspace } from './useWorkspace';

/** The pages of a notebook as the server knows them, with the numbers that the addresses of their pictures carry; by id. */
export function useShownPages(space: string, notebook: string): Map<string, ShownPage> {
  const workspace = useWorkspace();
  const { data } = useQuery({
    queryKey: ['pages', notebook],
    queryFn: () => workspace.list<ShownPage[]>(`/api/spaces/${space}/notebooks/${notebook}/pages`),
    refetchInterval: withoutNews,
    refetchOnMount: 'always',
  });
  return useMemo(() => new Map((data ?? []).map((page) => [page.id, page])), [data]);
}
