import { useSyncExternalStore } from 'react';

/** How far a newer version of the application is. */
export interface NewVersion {
  /** It is here, and waits for the tabs to agree. */
  isReady: boolean;
  /** This tab has agreed. */
  agreed: boolean;
  /** So many tabs have not. */
  missing: number;
}

/** A tab that agreed says so again after so long: another tab may have been closed, or the worker begun anew, ms. */
const sayAgain = 2_000;
/** It is looked for a newer version so often, ms. */
const lookEvery = 30 * 60_000;

let state: NewVersion = { isReady: false, agreed: false, missing: 0 };
let waiting: ServiceWorker | undefined;
const listeners = new Set<() => void>();

function set(change: Partial<NewVersion>): void {
  state = { ...state, ...change };
  for (const listener of listeners) listener();
}

/** Starts the service worker, which serves one build whole; a newer one waits until every tab has agreed to it. */
export async function watchVersions(isBusy: () => boolean): Promise<void> {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
  const { serviceWorker } = navigator;
  let hadOne = serviceWorker.controller !== null;
  let isTaken = false;
  serviceWorker.addEventListener('controllerchange', () => {
    // The first one takes over a page of its own build; every later one brings another.
    if (hadOne && !isTaken) {
      isTaken = true;
      location.reload();
    }
    hadOne = true;
  });
  /** A newer one that waits is offered here. */
  const see = (registration: ServiceWorkerRegistration | undefined) => {
    if (!registration?.waiting || !serviceWorker.controller) return;
    waiting = registration.waiting;
    set({ isReady: true });
  };
  serviceWorker.addEventListener('message', ({ data }: MessageEvent<{ what?: string; count?: number }>) => {
    if (data?.what === 'missing') set({ missing: data.count ?? 0 });
    if (data?.what !== 'asked') return;
    // Another tab would have it: this one may not know of it yet.
    void serviceWorker.getRegistration().then((registration) => {
      see(registration);
      // A tab that nobody looks at, and that holds nothing, need not be asked.
      if (document.hidden && !isBusy()) agree();
    });
  });
  serviceWorker.startMessages();
  const look = async () => {
    const registration = await serviceWorker.register(await addressOfWorker());
    see(registration);
    registration.installing?.addEventListener('statechange', () => see(registration));
  };
  await look();
  const lookAgain = () => void look().catch(() => {});
  setInterval(lookAgain, lookEvery);
  document.addEventListener('visibilitychange', () => {
    if (!document.hidden) lookAgain();
  });
}

/**
 * The worker's address, which names what it consists of: another build has another one, and is registered anew. Asking the browser to look for an update of one
 * and the same address can wait for ever while the page has workers of its own (seen in Chromium 156).
 */
async function addressOfWorker(): Promise<string> {
  const script = await (await fetch('/sw.js', { cache: 'no-store' })).arrayBuffer();
  const sum = new Uint8Array(await crypto.subtle.digest('SHA-256', script));
  return `/sw.js?build=${[...sum.slice(0, 6)].map((byte) => byte.toString(16).padStart(2, '0')).join('')}`;
}

/** This tab takes the newer version as soon as the others do. */
export function agree(): void {
  if (!waiting || waiting.state !== 'installed') return;
  waiting.postMessage({ what: 'agree' });
  if (!state.agreed) setInterval(() => waiting?.postMessage({ what: 'agree' }), sayAgain);
  set({ agreed: true });
}

export function useNewVersion(): NewVersion {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => state,
  );
}
