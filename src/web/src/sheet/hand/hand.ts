import type { Core } from '../../core/runtime';
import type { Area } from '../../model/drawing';
import type { Live } from '../../sync/live';
import type { OpenDocument } from '../../sync/openDocument';
import type { DryInk } from '../ink/dryInk';
import type { FloatInk, FloatPart } from '../ink/floatInk';
import type { Sample } from './penInput';
import type { View } from '../ink/view';
import type { WetInk } from '../ink/wetInk';
import type { Habits } from '../../model/habits';
import type { SheetEvents } from './events';
import type { Guide } from './things';

/** What a hand works with. */
export interface Workplace {
  core: Core;
  page: OpenDocument;
  live: Live;
  paper: string;
  dry: DryInk;
  wet: WetInk;
  float: FloatInk;
  view(): View;
  sheet(): Area;
  habits(): Habits;
  guide(): Guide | undefined;
  /** Words that are printed on the page: of each the ends of its baseline and the height of its type. */
  printed(): readonly number[];
  /** What was taken before. */
  taken(): readonly string[];
  /** Whether Shift was held as the hand was put to the sheet. */
  shift(): boolean;
  events(): SheetEvents;
  /** The layer that is written on; empty for the first. */
  layer(): string;
  /** The page's ink has been painted in another way than by operations: tell how many strokes are shown. */
  tellCount(): void;
  /** Ink came to the page. */
  wrote(area: Area): void;
  /** Shows items floating above the page, in place of where they lie. */
  lift(items: readonly string[], parts: FloatPart[]): void;
  /** Puts down what floats, once the page shows it where it now lies. */
  putDown(): void;
  /** Keeps ink within the sheet, where pages follow without a gap. */
  within(sample: Sample): { x: number; y: number };
}

/** One tool at work, from pen down to pen up. Exactly one of `end` and `cancel` follows `begin`. */
export interface Hand {
  begin(sample: Sample): void;
  move(samples: Sample[]): void;
  end(): void;
  cancel(): void;
}

/** What is shown under a pen that hovers over the page. */
export interface Nib {
  /** 0.01 mm. */
  width: number;
  /** A ring without one. */
  colour?: string;
}

/** A tool as it is set, ready to be put to the sheet. */
export interface HeldTool {
  readonly name: string;
  /** It leaves ink, so the layer that is written on must be one that can be. */
  readonly leavesInk?: boolean;
  /** A ruler or compass on the page holds what it does. */
  readonly keepsToGuide?: boolean;
  /** What was taken stays so when it is put to the sheet. */
  readonly keepsTaken?: boolean;
  readonly nib?: Nib | undefined;
  /** What the hand does with it, from pen down to pen up. */
  takeUp(at: Workplace): Hand;
  /** What a press on things that are taken does, whatever is in the hand. */
  pressTaken?(at: Workplace, x: number, y: number): void;
}

export function boxOf(points: readonly number[]): Area {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i + 1 < points.length; i += 2) {
    [left, right] = [Math.min(left, points[i]!), Math.max(right, points[i]!)];
    [top, bottom] = [Math.min(top, points[i + 1]!), Math.max(bottom, points[i + 1]!)];
  }
  return [left, top, right, bottom];
}
