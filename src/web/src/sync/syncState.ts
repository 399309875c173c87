import { useSyncExternalStore } from 'react';

export type SyncProblem = 'none' | 'unreachable' | 'busy' | 'signed-out' | 'no-room';

/** How far saving has come. */
export interface SyncState {
  /** Operations not yet stored by the server. */
  waiting: number;
  /** Pages, notebooks and libraries that they belong to. */
  documents: number;
  problem: SyncProblem;
  /** Sentences of what the server refused. */
  refused: string[];
  /** The address of a document that will soon take no more. */
  nearlyFull: string;
}

let state: SyncState = { waiting: 0, documents: 0, problem: 'none', refused: [], nearlyFull: '' };
const listeners = new Set<() => void>();

export function setSyncState(change: Partial<SyncState>): void {
  state = { ...state, ...change };
  for (const listener of listeners) listener();
}

export function useSyncState(): SyncState {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => state,
  );
}

/** The state of saving in words. */
export function syncWords({ waiting, documents, problem, refused }: SyncState): string {
  const pages = documents === 1 ? '1 page' : `${documents} pages`;
  if (problem === 'no-room') return 'Cannot save: this device has no room left';
  if (refused.length > 0) return `Cannot save: ${refused[0]}`;
  if (problem === 'signed-out')
    return waiting > 0
      ? `Saved on this device, ${pages} waiting for you to sign in`
      : 'Signed out elsewhere, sign in again';
  if (problem === 'busy')
    return waiting > 0 ? `Saved on this device, ${pages} waiting, the server is busy` : 'The server is busy, all saved';
  if (problem === 'unreachable')
    return waiting > 0 ? `Saved on this device, ${pages} waiting for a connection` : 'No connection, all saved';
  return waiting > 0 ? 'Saving' : 'All saved';
}
