import { useSyncExternalStore } from 'react';
import type { Trouble } from './sender';

export type SyncProblem = 'none' | 'unreachable' | 'busy' | 'signed-out';

/** How far saving has come. */
export interface SyncState {
  /** Operations not yet stored by the server. */
  waiting: number;
  /** Pages, notebooks and libraries that they belong to. */
  documents: number;
  problem: SyncProblem;
  /** Pictures and files that the server does not have all of yet. */
  assets: number;
  /** Why one of them cannot be sent, or will not be taken. */
  assetTrouble: string;
  /** Operations for which this device has no room: they are in this window alone until they are sent. */
  onlyInMemory: number;
  /** Sentences of what the server refused. */
  refused: string[];
  /** Documents that the server cannot take something of at present. */
  troubles: Trouble[];
  /** The address of a document that will soon take no more. */
  nearlyFull: string;
}

const nothingYet: SyncState = {
  waiting: 0,
  documents: 0,
  assets: 0,
  assetTrouble: '',
  problem: 'none',
  onlyInMemory: 0,
  refused: [],
  troubles: [],
  nearlyFull: '',
};
let state = nothingYet;
const listeners = new Set<() => void>();

export function setSyncState(change: Partial<SyncState>): void {
  state = { ...state, ...change };
  for (const listener of listeners) listener();
}

/** As it is now. */
export function syncState(): SyncState {
  return state;
}

/** Another person's saving begins. */
export function resetSyncState(): void {
  setSyncState(nothingYet);
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
export function syncWords(state: SyncState): string {
  const { documents, assets, assetTrouble, problem, onlyInMemory, refused, troubles } = state;
  const waiting = state.waiting + assets;
  const pages = [
    ...(documents > 0 || assets === 0 ? [documents === 1 ? '1 page' : `${documents} pages`] : []),
    ...(assets > 0 ? [assets === 1 ? '1 picture' : `${assets} pictures`] : []),
  ].join(' and ');
  if (onlyInMemory > 0 && problem !== 'none') return 'Cannot save: this device is full, keep this window open';
  if (refused.length > 0) return `Not taken: ${refused[0]}`;
  if (problem === 'signed-out')
    return waiting > 0
      ? `Saved on this device, ${pages} waiting for you to sign in`
      : 'Signed out elsewhere, sign in again';
  if (problem === 'busy')
    return waiting > 0 ? `Saved on this device, ${pages} waiting, the server is busy` : 'The server is busy, all saved';
  if (problem === 'unreachable')
    return waiting > 0 ? `Saved on this device, ${pages} waiting for a connection` : 'No connection, all saved';
  if (troubles.length > 0)
    return `Saved on this device, ${troubles.length === 1 ? '1 page' : `${troubles.length} pages`} cannot be sent: ${troubles[0]!.sentence}`;
  if (assetTrouble) return `A picture is on this device alone: ${assetTrouble}`;
  return waiting > 0 ? 'Saving' : 'All saved';
}
