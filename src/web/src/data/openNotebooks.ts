import { useSyncExternalStore } from 'react';
import type { Item } from '../model/items';

/** A notebook that is open, with the page where it was left. */
export interface OpenNotebook {
  space: string;
  notebook: string;
  page: string;
}

const most = 12;
const key = 'quill.open';
const listeners = new Set<() => void>();
let open = JSON.parse(localStorage.getItem(key) ?? '[]') as OpenNotebook[];
let last: OpenNotebook | undefined;

function keep(changed: OpenNotebook[]): void {
  open = changed;
  localStorage.setItem(key, JSON.stringify(open));
  for (const listener of listeners) listener();
}

/** The notebooks that are open on this device, in the order in which they were opened. */
export function useOpenNotebooks(): OpenNotebook[] {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => open,
  );
}

/** Somebody is on a page: its notebook is open, and was left there. */
export function noteOpen(here: OpenNotebook): void {
  last = here;
  localStorage.setItem(placeKey(here.notebook), here.page);
  const known = open.find((one) => one.notebook === here.notebook);
  if (known?.page === here.page) return;
  keep(known ? open.map((one) => (one === known ? here : one)) : [...open.slice(-(most - 1)), here]);
}

export function closeNotebook(notebook: string): void {
  keep(open.filter((one) => one.notebook !== notebook));
}

/** Where the person was last in a notebook, on this device. */
export function lastPageIn(notebook: string): string {
  return localStorage.getItem(placeKey(notebook)) ?? '';
}

const placeKey = (notebook: string) => `quill.place.${notebook}`;

/** The address that opens something beside the page that is open last. */
export function lastPageBesidePath(item: Item): string | undefined {
  if (!last || item.kind === 'folder' || last.notebook === item.notebook) return undefined;
  return besidePath(last, {
    space: item.space,
    notebook: item.notebook,
    page: item.kind === 'page' ? item.id : lastPageIn(item.notebook),
  });
}

export function besidePath(here: OpenNotebook, beside: OpenNotebook): string {
  return `/page/${here.space}/${here.notebook}/${here.page}?beside=${beside.space}/${beside.notebook}/${beside.page}`;
}

export function readBeside(text: string | null): OpenNotebook | undefined {
  const [space, notebook, page = ''] = (text ?? '').split('/');
  return space && notebook ? { space, notebook, page } : undefined;
}
