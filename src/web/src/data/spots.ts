import { useMemo } from 'react';
import type { Core } from '../core/runtime';
import { useFonts } from '../letters/useFonts';
import type { Area } from '../model/drawing';
import type { OpenDocument } from '../sync/openDocument';
import { type Workspace } from '../sync/workspace';
import { useWorkspace } from './useWorkspace';

export type SpotKind = 'mark' | 'link' | 'heading' | 'curtain';

/** A mark, link or heading of the page that is open, as Core gives it. */
export interface Spot {
  id: string;
  kind: SpotKind;
  area: Area;
  items: string[];
  mark?: string;
  note?: string;
  due?: string;
  person?: string;
  target?: string;
  title?: string;
  level?: string;
  createdAt: number;
  author: string;
  open: boolean;
  /** A box to be ticked among typed words, which stands where it is typed. */
  typed?: boolean;
  doneAt?: number;
  doneBy?: string;
  /** Whether somebody else than who put it there said something to it. */
  answered: boolean;
  answers: Answer[];
}

/** What somebody said to a mark. */
export interface Answer {
  id: string;
  author: string;
  /** UTC ms. */
  at: number;
  text: string;
  inked: boolean;
  /** Whether who writes here may change what its author wrote. */
  open: boolean;
}

/** A spot with the page it is on, as the server lists it. */
export interface ShownSpot {
  space: string;
  notebook: string;
  notebookName: string;
  folder: string;
  page: string;
  pageNumber: number;
  pageTitle: string;
  paper: string;
  sequence: number;
  tags: string[];
  id: string;
  kind: number;
  area: [number, number, number, number];
  mark: string;
  note: string;
  due: string;
  person: string | null;
  target: string;
  title: string;
  level: number;
  isOpen: boolean;
  createdAt: number;
  author: string;
  doneAt: number | null;
  doneBy: string | null;
  answers: number;
  isAnswered: boolean;
}

const kinds = { mark: 1, link: 2, heading: 3, curtain: 4 } as const;
export const kindOfNumber: Record<number, SpotKind> = { 1: 'mark', 2: 'link', 3: 'heading', 4: 'curtain' };
const fields = { removed: 1, mark: 2, note: 3, due: 4, person: 5, done: 6, target: 7, title: 8, level: 9 } as const;
export type SpotValues = Partial<Record<keyof typeof fields, string>>;

/** The spots of a page, anew with every change of it; undefined as long as only its outlines are shown. */
export function useSpots(document: OpenDocument | undefined): Spot[] | undefined {
  const { core } = useWorkspace();
  const version = document?.getVersion();
  const fonts = useFonts();
  return useMemo(
    () => (document && !document.isHeld ? spotsOf(core, document, `${version} ${fonts}`) : undefined),
    [core, document, version, fonts],
  );
}

/** What was read of a page last: several parts of the screen ask for it at once. */
const known = new WeakMap<OpenDocument, { state: string; spots: Spot[] }>();

function spotsOf(core: Core, document: OpenDocument, state: string): Spot[] {
  const before = known.get(document);
  if (before?.state === state) return before.spots;
  const spots = JSON.parse(core.SpotBridge.Spots(document.handle)) as Spot[];
  known.set(document, { state, spots });
  return spots;
}

/** Makes a spot and gives its id; throws with the sentence of a refusal. */
export function addSpot(
  core: Core,
  page: OpenDocument,
  kind: SpotKind,
  area: Area,
  items: string[],
  values: SpotValues,
): string {
  const id = crypto.randomUUID();
  const given = entriesOf(values);
  page.perform((handle, now) =>
    core.SpotBridge.Add(
      handle,
      id,
      kinds[kind],
      area.map(Math.round),
      items,
      given.map(([field]) => fields[field]),
      given.map(([, value]) => value),
      now,
    ),
  );
  return id;
}

export function setSpot(core: Core, page: OpenDocument, spot: string, values: SpotValues): void {
  const given = entriesOf(values);
  page.perform((handle, now) =>
    core.SpotBridge.Set(
      handle,
      spot,
      given.map(([field]) => fields[field]),
      given.map(([, value]) => value),
      now,
    ),
  );
}

/** The same on a page that need not be open. */
export async function setSpotOn(
  workspace: Workspace,
  space: string,
  page: string,
  spot: string,
  values: SpotValues,
): Promise<void> {
  const document = await workspace.acquire(space, 'page', page);
  try {
    setSpot(workspace.core, document, spot, values);
    workspace.steps.note(space, 'page', page);
  } finally {
    workspace.release(space, 'page', page);
  }
}

function entriesOf(values: SpotValues): [keyof typeof fields, string][] {
  return Object.entries(values).filter((entry): entry is [keyof typeof fields, string] => entry[1] !== undefined);
}

/** A part of a page as a picture; its address carries all that can change it. */
export function partPath(spot: Pick<ShownSpot, 'space' | 'page' | 'paper' | 'sequence'>, area: Area): string {
  return `/api/spaces/${spot.space}/pages/${spot.page}/part.svg?paper=${spot.paper}&sequence=${spot.sequence}&area=${area.map(Math.round).join()}`;
}

/** The strip of a page around a spot by which it can be judged without opening: wide enough to hold a few words. */
export function aroundSpot([left, top, right, bottom]: Area, width: number, height: number): Area {
  // Ink is shown with little around it; a sign on bare paper needs more to be judged by.
  const high = right - left < 1500 ? Math.max(1400, bottom - top + 300) : Math.max(850, bottom - top + 220);
  const wide = Math.max((high * width) / height, Math.min(right - left + 600, 24000));
  const scaled = (wide * height) / width;
  const middle = (top + bottom) / 2;
  // A small sign stands at the end of what it is about; the words are to its left.
  const from = right - left < 1500 ? right + 300 - wide : left - 300;
  return [Math.max(-200, from), middle - scaled / 2, Math.max(-200, from) + wide, middle + scaled / 2];
}
