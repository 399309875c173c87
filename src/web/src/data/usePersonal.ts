import { type Core, properties } from '../core/runtime';
import { type Habits, usualHabits } from '../model/habits';
import { type Palettes, readPalettes } from '../model/palettes';
import { firstTray, type Pen, readTray, writeTray } from '../model/pens';
import { useSession } from '../server/session';
import { useWorkspace } from './useWorkspace';
import { defaultPaper, root } from '../model/items';
import type { Library } from './Library';
import { useLibrary } from './useLibrary';
import { readView, type View, writeView } from '../model/libraryView';

/** What a jot is made on. */
export interface JotPreset {
  paper: string;
  colour: string;
  /** Which pen of the tray is taken up, counted from 0. */
  pen: number;
}

/** Where today's page is made, and on what. */
export interface TodayPreset {
  space: string;
  notebook: string;
  paper: string;
}

/** A notebook that was opened. */
export interface Used {
  space: string;
  notebook: string;
  /** The day of the last visit, in days since 1970 UTC. */
  lastDay: number;
}

/** Where the page is that an aside lies over, as it was last seen there. */
export interface AsideNote {
  space: string;
  notebook: string;
  title: string;
  paper: string;
}

/** What is personal, kept in the person's own library: stars, views, presets, visits. */
export interface Personal {
  library: Library;
  stars: Set<string>;
  star: (id: string, on: boolean) => void;
  /** The pages with a bookmark. */
  bookmarks: Set<string>;
  bookmark: (page: string, notebook: string, on: boolean) => void;
  /** The pages that an aside of one's own lies over, and where they are. */
  asides: ReadonlyMap<string, AsideNote>;
  noteAside: (page: string, note: AsideNote) => void;
  /** Up to when one has seen what was said to one, UTC ms. */
  toldUntil: number;
  setToldUntil: (at: number) => void;
  view: (target: string) => View;
  setView: (target: string, view: View) => void;
  often: () => Used[];
  jotPreset: JotPreset;
  setJotPreset: (preset: JotPreset) => void;
  todayPreset?: TodayPreset;
  setTodayPreset: (preset: TodayPreset) => void;
  /** The pens for a notebook: its own set where it has one, else the one that goes everywhere. */
  tray: (notebook?: string) => Pen[];
  hasOwnTray: (notebook: string) => boolean;
  /** Keeps pens for one notebook, or without one for everywhere; none gives the notebook's own set up. */
  setTray: (pens: readonly Pen[] | undefined, notebook?: string) => void;
  palettes: Palettes;
  setPalettes: (palettes: Palettes) => void;
  habits: Habits;
  setHabits: (change: Partial<Habits>) => void;
}

export function usePersonal(): Personal | undefined {
  const { spaces } = useSession();
  const { core } = useWorkspace();
  const library = useLibrary(spaces.find((space) => space.personal)!.id);
  return library && personalOf(core, library);
}

/** Whether single letters and signs are keys for this person. */
export function useLetterKeys(): boolean {
  return (usePersonal()?.habits ?? usualHabits).letterKeys;
}

/** A library as it stands is read once, however many ask for it. */
const read = new WeakMap<Library, Personal>();

function personalOf(core: Core, library: Library): Personal {
  let personal = read.get(library);
  if (!personal) read.set(library, (personal = readPersonal(core, library)));
  return personal;
}

function readPersonal(core: Core, library: Library): Personal {
  const views = library.registers(properties.view);
  const trays = library.registers(properties.tray);
  const habits = {
    ...usualHabits,
    ...(JSON.parse(library.registers(properties.habits)[root] ?? '{}') as Partial<Habits>),
  };
  const today = library.registers(properties.todayPreset)[root];
  return {
    library,
    stars: new Set(Object.keys(library.registers(properties.starred))),
    star: (id, on) => library.set(id, properties.starred, on ? '1' : ''),
    bookmarks: new Set(Object.keys(library.registers(properties.bookmarked))),
    bookmark: (page, notebook, on) => library.set(page, properties.bookmarked, on ? notebook : ''),
    asides: new Map(
      Object.entries(library.registers(properties.aside)).map(([page, note]) => [page, JSON.parse(note) as AsideNote]),
    ),
    noteAside: (page, note) => library.set(page, properties.aside, JSON.stringify(note)),
    toldUntil: Number(library.registers(properties.told)[root] ?? 0),
    setToldUntil: (at) => library.set(root, properties.told, String(at)),
    view: (target) => readView(views[target]),
    setView: (target, view) => library.set(target, properties.view, writeView(view)),
    often: () => JSON.parse(core.LibraryBridge.Often(library.handle)) as Used[],
    jotPreset: {
      paper: defaultPaper,
      colour: 'gold',
      pen: 0,
      ...(JSON.parse(library.registers(properties.jotPreset)[root] ?? '{}') as Partial<JotPreset>),
    },
    setJotPreset: (preset) => library.set(root, properties.jotPreset, JSON.stringify(preset)),
    ...(today ? { todayPreset: JSON.parse(today) as TodayPreset } : {}),
    setTodayPreset: (preset) => library.set(root, properties.todayPreset, JSON.stringify(preset)),
    tray: (notebook) => readTray(notebook ? trays[notebook] : undefined) ?? readTray(trays[root]) ?? firstTray,
    hasOwnTray: (notebook) => readTray(trays[notebook]) !== undefined,
    setTray: (pens, notebook) => library.set(notebook ?? root, properties.tray, pens ? writeTray(pens) : ''),
    palettes: readPalettes(library.registers(properties.palettes)[root]),
    setPalettes: (palettes) => library.set(root, properties.palettes, JSON.stringify(palettes)),
    habits,
    setHabits: (change) => library.set(root, properties.habits, JSON.stringify({ ...habits, ...change })),
  };
}
