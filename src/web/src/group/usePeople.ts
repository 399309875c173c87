import { useQuery } from '@tanstack/react-query';
import type { Role } from '../session/session';
import { useWorkspace } from '../sync/workspace';

export interface Member {
  id: string;
  name: string;
  colour: string;
  role: Role;
}

/** The members of a space. */
export function usePeople(space: string): Member[] {
  const workspace = useWorkspace();
  return useQuery({ queryKey: ['people', space], queryFn: () => workspace.list<Member[]>(`/api/spaces/${space}/members`), staleTime: 60_000 }).data ?? [];
}
