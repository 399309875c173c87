import { useQueries } from '@tanstack/react-query';
import { useSession } from '../server/session';
import { withoutNews } from './useNews';
import { useWorkspace } from './useWorkspace';

/** When the server was told of what is in the bins of all spaces, by the ids of the things. */
export function useBinTimes(): Map<string, number> {
  const { spaces } = useSession();
  const workspace = useWorkspace();
  return useQueries({
    queries: spaces.map((space) => ({
      queryKey: ['bin', 'times', space.id],
      queryFn: () => workspace.list<{ id: string; at: number }[]>(`/api/spaces/${space.id}/bin/times`),
      refetchInterval: withoutNews,
    })),
    combine: joined,
  });
}

function joined(answers: { data?: { id: string; at: number }[] | undefined }[]): Map<string, number> {
  return new Map(answers.flatMap(({ data }) => (data ?? []).map(({ id, at }) => [id, at] as const)));
}
