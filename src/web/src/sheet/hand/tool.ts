import type { Icon } from '@phosphor-icons/react';
import type { ComponentType } from 'react';
import type { Core } from '../../core/runtime';
import type { Writer } from '../../data/usePeople';
import type { Habits } from '../../model/habits';
import type { Pen } from '../../model/pens';
import type { MarkKind } from '../../spots/markKinds';
import type { OpenDocument } from '../../sync/openDocument';
import type { HeldTool } from './hand';
import type { Guide } from './things';

/** A tool that is taken into the hand. What it is set to is kept on the device, and is a flat object that can be written as JSON. */
export interface Tool<S extends object = object> {
  /** Its name in what is kept, and in `data-testid`. */
  readonly name: string;
  words(settings: S): string;
  /** What it is called where there is more room. */
  readonly title?: string;
  icon(settings: S): Icon;
  /** The key that takes it up, and puts it back. */
  readonly key?: string;
  readonly first: S;
  /** Its settings are forgotten with the window. */
  readonly forgets?: boolean;
  /** What a finger, or a pen's button or tail, is said to do where it may stand for this. */
  readonly standIn?: { finger: Habits['finger']; does: string; tail: boolean };
  /** Its settings unfold when it is taken up, and not only when it is pressed again. */
  readonly unfolds?: boolean;
  /** What is to be done with it, where it has no settings. */
  readonly hint?: string;
  readonly Panel?: ComponentType<PanelProps>;
  /** Ready to be put to the sheet. */
  hold(settings: S, pen: Pen): HeldTool;
}

/** What the tray and the panel of all tools offer: a tool, or something that lies beside the sheet or is turned on. */
export interface Offer {
  readonly name: string;
  /** As it is set now, in a word. */
  words(tools: Tools): string;
  /** What it is called, however it is set. */
  readonly title: string;
  icon(tools: Tools): Icon;
  readonly key?: string;
  isOn(tools: Tools): boolean;
  press(tools: Tools): void;
  /** What its key does, where that is less than pressing it. */
  byKey?(tools: Tools): void;
  readonly Panel?: ComponentType<PanelProps>;
}

/** What can be done with the sheet from a panel of the tray. */
export interface SheetActs {
  core: Core;
  page: OpenDocument;
  notebook: string;
  kinds: MarkKind[];
  people: Writer[];
  /** The middle of what is seen of the page, for what is laid down there. */
  middle: () => { x: number; y: number };
  newKind: () => void;
  takeAll: () => void;
  paste: () => void;
  /** Brings pictures onto the page. */
  putPictures: (files: File[]) => void;
  /** Keeps files with the page, whatever they are. */
  putFiles: (files: File[]) => void;
  /** Pages of files behind this one; not where the library is not one's own. */
  putPages: (() => void) | undefined;
  /** Lays a plot down in the middle of what is seen. */
  putPlot: () => void;
  /** Lays a formula down there. */
  putFormula: () => void;
  clear: () => void;
}

export interface PanelProps {
  tools: Tools;
  sheet: SheetActs;
}

/** The pens of the tray, and which of them is in the hand or was last. */
export interface Pens {
  tray: Pen[];
  chosen: number;
  choose: (index: number) => void;
  changePen: (pen: Pen, keepRecent?: boolean) => void;
  addPen: () => void;
  removePen: () => void;
  movePen: (by: number) => void;
}

/** What is in the hand: one hand, however many pages lie open. */
export interface Tools extends Pens {
  /** The name of the tool in the hand. */
  held: string;
  /** It, as it is set. */
  tool: HeldTool;
  standIns: ReadonlyMap<string, HeldTool>;
  settingsOf: <S extends object>(tool: Tool<S>) => S;
  change: <S extends object>(tool: Tool<S>, change: Partial<S>) => void;
  habits: Habits;
  changeHabits: (change: Partial<Habits>) => void;
  guide: Guide | undefined;
  setGuide: (guide: Guide | undefined) => void;
  /** The layer that is written on, by page. */
  layerOf: (page: string) => string;
  setLayer: (page: string, layer: string) => void;
  reading: boolean;
  setReading: (on: boolean) => void;
  zoomLocked: boolean;
  setZoomLocked: (on: boolean) => void;
  /** What is turned on, such as the loupe. */
  isOn: (name: string) => boolean;
  turn: (name: string, on: boolean) => void;
  /** Whose panel is unfolded. */
  open: string | undefined;
  unfold: (name: string | undefined) => void;
  /** Folds what is unfolded, but for what stays beside the sheet while one writes. */
  fold: () => void;
  /** Takes a pen up; when it is in the hand already, unfolds what it is like. */
  press: (index: number) => void;
  /** Takes a tool up; when it is in the hand already, unfolds its settings. */
  pressTool: (tool: Pick<Tool, 'name' | 'unfolds'>) => void;
  /** Takes a tool up, or the pen when it is in the hand already. */
  toggle: (name: string) => void;
  /** The pen that was in the hand before. */
  swap: () => void;
  /** A tool was used once, to its end. */
  used: (name: string) => void;
  picked: (colour: string | undefined) => void;
}
