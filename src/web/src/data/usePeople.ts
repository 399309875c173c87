import { useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Role } from '../server/session';
import { type Workspace } from '../sync/workspace';
import { useWorkspace } from './useWorkspace';

export interface Member {
  id: string;
  name: string;
  colour: string;
  role: Role;
}

function peopleQuery(workspace: Workspace, space: string) {
  return {
    queryKey: ['people', space],
    queryFn: () => workspace.list<Member[]>(`/api/spaces/${space}/members`),
    staleTime: 60_000,
  };
}

/** The members of all spaces, by their ids. */
export function usePeopleOf(spaces: { id: string }[]): Map<string, Member> {
  const workspace = useWorkspace();
  const all = useQueries({ queries: spaces.map((space) => peopleQuery(workspace, space.id)), combine: dataOf });
  return useMemo(() => new Map(all.map((member) => [member.id, member])), [all]);
}

const dataOf = (results: { data: Member[] | undefined }[]) => results.flatMap(({ data }) => data ?? []);

/** The members of a space. */
export function usePeople(space: string): Member[] {
  return useQuery(peopleQuery(useWorkspace(), space)).data ?? nobody;
}

const nobody: Member[] = [];
