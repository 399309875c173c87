import { useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Role } from '../server/session';
import { getJson } from '../server/api';
import { type Workspace } from '../sync/workspace';
import { useIsGuest, useShared } from './useShared';
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

/**
 * Everybody whose ink may be on the pages of a notebook: members, guests, those who wrote there and left.
 * @param met Who is there now; those not known yet are asked for.
 */
export function useWriters(space: string, notebook: string, met: string[]): Writer[] {
  const workspace = useWorkspace();
  const isGuest = useIsGuest(space);
  const shared = useShared();
  const { data: members } = useQuery({ ...peopleQuery(workspace, space), enabled: !isGuest });
  const { data: guests } = useQuery({
    queryKey: ['guests', space],
    queryFn: () => workspace.list<Writer[]>(`/api/spaces/${space}/guests`),
    staleTime: 60_000,
    enabled: !isGuest,
  });
  const known = useMemo(
    () =>
      isGuest ? (shared.find((one) => one.space === space)?.people ?? []) : [...(members ?? []), ...(guests ?? [])],
    [isGuest, shared, space, members, guests],
  );
  const isAsked = isGuest || (members !== undefined && guests !== undefined);
  const unknown = met.filter((id) => !known.some((one) => one.id === id)).sort();
  const { data: told } = useQuery({
    queryKey: ['names', notebook, unknown.join()],
    queryFn: () => getJson<Writer[]>(`/api/spaces/${space}/notebooks/${notebook}/people?of=${unknown.join()}`),
    enabled: isAsked && unknown.length > 0,
    retry: false,
    staleTime: Infinity,
    placeholderData: (before) => before,
  });
  return useMemo(
    () => [...known, ...(told ?? []).filter((one) => !known.some(({ id }) => id === one.id))],
    [known, told],
  );
}

/** Somebody whose ink is shown. */
export type Writer = Omit<Member, 'role'>;

const nobody: Member[] = [];
