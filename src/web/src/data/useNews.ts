import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef } from 'react';
import { useSyncState } from '../sync/syncState';
import { useWorkspace } from './useWorkspace';

/** What the server makes of what is written. */
const made = new Set([
  'spots',
  'pages',
  'follow-ups',
  'summaries',
  'entries',
  'desk',
  'deeds',
  'backlinks',
  'web',
  'web-pages',
  'tag-uses',
  'paper-uses',
  'bin',
  'member-pages',
]);
/** What says who is there, and who wants to be. */
const company = ['people', 'guests', 'door', 'invitations', 'shared', 'shares'];
/** What says who may do what. */
const granted = new Set(['locks', 'session', ...company]);
/** It is asked for no more often than this, ms, however much is written. */
const leastBetween = 4_000;
/** And this often without being told, ms. */
export const withoutNews = 60_000;

/** Asks the server anew for the lists that are shown: when it has taken what was written here, and when somebody else wrote. */
export function useNews(): void {
  const { live, assets } = useWorkspace();
  const queries = useQueryClient();
  const isSaved = useSyncState().waiting === 0;
  const wasSaved = useRef(isSaved);
  const ask = useMemo(
    () =>
      spaced(() => {
        void queries.invalidateQueries({ predicate: ({ queryKey }) => made.has(String(queryKey[0])) });
        assets.lookAgain();
      }, leastBetween),
    [queries, assets],
  );
  useEffect(() => {
    live.onNews = ask;
    live.onAgain = () =>
      void queries.invalidateQueries({ predicate: ({ queryKey }) => granted.has(String(queryKey[0])) });
    live.onCompany = () =>
      void queries.invalidateQueries({ predicate: ({ queryKey }) => company.includes(String(queryKey[0])) });
    return () => void (live.onNews = live.onAgain = live.onCompany = undefined);
  }, [live, ask, queries]);
  useEffect(() => {
    if (isSaved && !wasSaved.current) ask();
    wasSaved.current = isSaved;
  }, [isSaved, ask]);
}

/** Does something at once, and again only after a pause; what is wished for in between is done once, after it. */
function spaced(task: () => void, pause: number): () => void {
  let last = -Infinity;
  let timer: ReturnType<typeof setTimeout> | undefined;
  return () => {
    timer ??= setTimeout(
      () => {
        timer = undefined;
        last = performance.now();
        task();
      },
      Math.max(0, last + pause - performance.now()),
    );
  };
}
