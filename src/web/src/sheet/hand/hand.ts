import type { Core } from '../../core/runtime';
import type { Area } from '../../model/drawing';
import type { Live } from '../../sync/live';
import type { OpenDocument } from '../../sync/openDocument';
import type { DryInk } from '../ink/dryInk';
import type { FloatInk, FloatPart } from '../ink/floatInk';
import type { Sample } from './penInput';
import type { View } from '../ink/view';
import type { WetInk } from '../ink/wetInk';
import type { Guide, Taken } from './tool';
import type { HandSettings } from '../../model/habits';

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
  settings(): HandSettings;
  guide(): Guide | undefined;
  /** The layer that is written on; empty for the first. */
  layer(): string;
  /** The page's ink has been painted in another way than by operations: tell how many strokes are shown. */
  tellCount(): void;
  /** Ink came to the page. */
  wrote(area: Area): void;
  take(taken: Taken | undefined): void;
  /** Shows items floating above the page, in place of where they lie. */
  lift(items: readonly string[], parts: FloatPart[]): void;
  /** Puts down what floats, once the page shows it where it now lies. */
  putDown(): void;
  /** A sentence for the person. */
  say(sentence: string): void;
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

export function boxOf(points: readonly number[]): Area {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i + 1 < points.length; i += 2) {
    [left, right] = [Math.min(left, points[i]!), Math.max(right, points[i]!)];
    [top, bottom] = [Math.min(top, points[i + 1]!), Math.max(bottom, points[i + 1]!)];
  }
  return [left, top, right, bottom];
}
