import { t } from '@lingui/core/macro';
import { type QueryClient, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { useWorkspace } from '../data/useWorkspace';
import type { ShownPage } from '../model/items';
import type { Role, Touch } from '../server/session';
import { getJson, sendJson } from '../server/api';
import { withoutNews } from '../data/useNews';

/** What each role is, in a sentence. */
export const roleWords: Record<Role, string> = {
  owner: t`writes, and decides who may do what`,
  writer: t`reads and writes everything here`,
  reader: t`reads everything here`,
};

/** What writers may do to what is there already. */
export const touchWords: Record<Touch, string> = {
  everything: t`Change everything, also what others wrote`,
  own: t`Change only what they wrote themselves`,
  add: t`Only add, and change nothing that is there`,
};

/** What one will be by an invitation. */
export const invitedAs: Record<Role, string> = {
  owner: t`You will read and write everything there, and decide who may do what.`,
  writer: t`You will read and write everything there.`,
  reader: t`You will read everything there.`,
};

export type InvitationState = 'open' | 'over' | 'used-up';

/** An invitation as the owners of its group see it. */
export interface Invitation {
  id: string;
  /** Whom it is for; null for a link. */
  for: string | null;
  email: string;
  /** How the letter goes that carries it; null for none. */
  letter: 'on-its-way' | 'waiting' | 'failed' | null;
  role: Role;
  asks: boolean;
  until: number;
  mostUses: number;
  uses: number;
  state: InvitationState;
  /** Null for one to a person; empty where the server cannot read it any more. */
  link: string | null;
  modules: string[] | null;
}

/** An invitation as whoever holds it sees it. */
export interface Invited {
  id: string;
  group: string;
  colour: string;
  by: string;
  role: Role;
  asks: boolean;
  state: InvitationState;
  /** Which group it is, for somebody who is in it. */
  space: string | null;
}

/** Who stands at the door. */
export interface Door {
  invited: Invited[];
  asking: { space: string; group: string; person: string; name: string; colour: string; askedAt: number }[];
}

export interface DissolvedGroup {
  id: string;
  name: string;
  colour: string;
  until: number;
}

/** Invitations for oneself, and those who ask to be let into one's groups; nothing while the server cannot be asked. */
export function useDoor(): Door {
  const { data } = useQuery({
    queryKey: ['door'],
    queryFn: () => getJson<Door>('/api/door'),
    refetchInterval: withoutNews,
    retry: false,
  });
  return data ?? nobody;
}

const nobody: Door = { invited: [], asking: [] };

/** The pages that each member wrote on last, by member. */
export function useLastPages(space: string): Map<string, ShownPage[]> {
  const workspace = useWorkspace();
  const { data } = useQuery({
    queryKey: ['member-pages', space],
    queryFn: () => workspace.list<{ person: string; pages: ShownPage[] }[]>(`/api/spaces/${space}/members/pages`),
    refetchOnMount: 'always',
  });
  return useMemo(() => new Map((data ?? []).map(({ person, pages }) => [person, pages])), [data]);
}

export function useInvitations(space: string): Invitation[] | undefined {
  return useQuery({
    queryKey: ['invitations', space],
    queryFn: () => getJson<Invitation[]>(`/api/spaces/${space}/invitations`),
    refetchInterval: withoutNews,
  }).data;
}

export function useDissolved(): DissolvedGroup[] {
  return (
    useQuery({
      queryKey: ['dissolved'],
      queryFn: () => getJson<DissolvedGroup[]>('/api/groups/dissolved'),
      retry: false,
    }).data ?? []
  );
}

/** Asks anew for all that says who is in which group. */
async function askAgain(queries: QueryClient): Promise<void> {
  await Promise.all(
    ['session', 'people', 'door', 'invitations', 'dissolved', 'desk'].map((key) =>
      queries.invalidateQueries({ queryKey: [key] }),
    ),
  );
}

/** What is done about groups: each throws the server's sentence when it is refused. */
export function useGroupActs() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const done = () => askAgain(queries);
  return {
    /** Makes a group and goes there, to invite the others. */
    make: async (name: string, colour: string) => {
      const { id } = await sendJson<{ id: string }>('POST', '/api/groups', { name, colour });
      await done();
      void navigate(`/group/${id}?invite`);
    },
    change: (space: string, name: string, colour: string, touch: Touch, isPastClosed: boolean) =>
      sendJson('PUT', `/api/spaces/${space}/group`, { name, colour, touch, isPastClosed }).then(done),
    setRole: (space: string, person: string, role: Role | 'none') =>
      sendJson('PUT', `/api/spaces/${space}/members/${person}`, { role }).then(done),
    handOver: (space: string, person: string) =>
      sendJson('POST', `/api/spaces/${space}/group/heir`, { person }).then(done),
    leave: async (space: string) => {
      await sendJson('DELETE', `/api/spaces/${space}/group/me`);
      void navigate('/group', { replace: true });
      await done();
    },
    dissolve: async (space: string) => {
      await sendJson('DELETE', `/api/spaces/${space}/group`);
      void navigate('/group', { replace: true });
      await done();
    },
    haveBack: async (group: string) => {
      await sendJson('POST', `/api/groups/dissolved/${group}`);
      await done();
      void navigate(`/group/${group}`);
    },
    invite: async (space: string, asked: object) => {
      const answer = await sendJson<{ link: string | null; mailed: boolean }>(
        'POST',
        `/api/spaces/${space}/invitations`,
        asked,
      );
      await queries.invalidateQueries({ queryKey: ['invitations', space] });
      return answer;
    },
    takeBack: (space: string, invitation: string) =>
      sendJson('DELETE', `/api/spaces/${space}/invitations/${invitation}`).then(() =>
        queries.invalidateQueries({ queryKey: ['invitations', space] }),
      ),
    answerInvitation: async (invitation: string, answer: boolean) => {
      const came = await sendJson<{ space: string | null } | undefined>('POST', `/api/door/${invitation}`, { answer });
      await done();
      if (came?.space) void navigate(`/library/${came.space}`);
    },
    answerRequest: (space: string, person: string, answer: boolean) =>
      sendJson('POST', `/api/spaces/${space}/requests/${person}`, { answer }).then(done),
  };
}
