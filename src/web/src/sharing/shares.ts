import { t } from '@lingui/core/macro';
import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { withoutNews } from '../data/useNews';
import { dateWords } from '../model/time';
import { getJson, sendJson } from '../server/api';

/** Whom something is shared with. */
export type With = 'person' | 'group' | 'link' | 'everybody';

/** A share as those see it who may take it back. */
export interface Share {
  id: string;
  node: string;
  name: string;
  /** The one page that everybody may see. */
  page: string | null;
  with: With;
  /** The person or group; empty for a link. */
  to: string;
  hasPassphrase: boolean;
  writes: boolean;
  copies: boolean;
  by: string;
  until: number | null;
  /** Who came by the link. */
  guests: string[];
  /** Null where there is none; empty where the server cannot read it any more. */
  link: string | null;
  modules: string[] | null;
}

export interface AskedShare {
  node: string;
  page?: string;
  with: With;
  who?: string;
  group?: string;
  writes: boolean;
  days: number;
  passphrase?: string;
  copies?: boolean;
}

const queryOf = (space: string) => ({
  queryKey: ['shares', space],
  queryFn: () => getJson<Share[]>(`/api/spaces/${space}/shares`),
  refetchInterval: withoutNews,
  retry: false,
});

/** What is shared out of a library; undefined until it is known. */
export function useShares(space: string): Share[] | undefined {
  return useQuery(queryOf(space)).data;
}

/** What is shared out of several libraries. */
export function useSharesOf(spaces: string[]): (Share & { space: string })[] {
  return useQueries({
    queries: spaces.map(queryOf),
    combine: (all) => all.flatMap(({ data }, i) => (data ?? []).map((share) => ({ ...share, space: spaces[i]! }))),
  });
}

/** What is done about sharing: each throws the server's sentence when it is refused. */
export function useShareActs() {
  const queries = useQueryClient();
  const again = (key: string) => queries.invalidateQueries({ queryKey: [key] });
  return {
    share: async (space: string, asked: AskedShare) => {
      const made = await sendJson<{ id: string; link: string | null; mailed: boolean }>(
        'POST',
        `/api/spaces/${space}/shares`,
        asked,
      );
      await again('shares');
      return made;
    },
    takeBack: (space: string, share: string) =>
      sendJson('DELETE', `/api/spaces/${space}/shares/${share}`).then(() => again('shares')),
    letGo: (share: string) => sendJson('DELETE', `/api/shared/${share}`).then(() => again('shared')),
  };
}

/** Whom it is shared with, in words. */
export function withWords(share: Share): string {
  if (share.with === 'everybody') return t`Everybody who has the address`;
  if (share.with === 'link') return share.guests.length > 0 ? share.guests.join(', ') : t`Whoever has the link`;
  return share.to;
}

/** What they may do, and until when. */
export function termsWords({ with: whom, writes, until }: Share): string {
  const what = whom === 'everybody' ? t`only to look at` : writes ? t`to read and write in` : t`to read`;
  return [what, untilWords(until)].filter(Boolean).join(' · ');
}

/** Its last day; nothing where it is shared until it is taken back. */
export const untilWords = (until: number | null): string =>
  until === null ? '' : t`until ${dateWords(new Date(until))}`;
