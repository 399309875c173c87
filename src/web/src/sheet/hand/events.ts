import type { View } from '../ink/view';
import type { Taken, TypingPlace } from './things';

/** What a sheet tells, and asks, whoever shows it. */
export interface SheetEvents {
  /** A hand is put to the sheet. */
  begun(): void;
  /** A tool was used once, to its end. */
  used(tool: string): void;
  /** Things were taken, or let go of. */
  taken(taken: Taken | undefined): void;
  /** A mark, link or heading is to be shown with what is said of it. */
  chosen(spot: string): void;
  /** Something is to be typed there. */
  types(place: TypingPlace): void;
  /** A colour was picked from the page; undefined where there is no ink. */
  picked(colour: string | undefined): void;
  /** What came shows files that are kept in another space. */
  needs(assets: readonly string[], from: string): void;
  /** Ink came to the page: how far down it lies, 0 to 1. */
  inked(down: number): void;
  /** How far the sheet is pulled past an end, −1 to 1 and beyond; 0 when it is not. And whether the pull began at that end, and is not the last of a scroll that led there. */
  pulled(share: number, meant: boolean): void;
  /** The page was pulled past its end, or in a seamless notebook scrolled past: where the view goes on for the next page, if it does. A pull that is meant may make one. */
  turned(by: number, turning: { meant: boolean; view?: View }): void;
  /** The pen's button is to change tools. */
  buttonPressed(): void;
  undo(): void;
  redo(): void;
  /** A sentence for the person. */
  say(sentence: string): void;
  /** A press on what may lead somewhere; true when it does. */
  pressed(x: number, y: number): boolean;
  /** Whether the layer that is written on can be; says why not. */
  mayWriteOn(): boolean;
  /** Room is made and these would leave the sheet, which ends there: whether they go to the next page in one step with it. */
  carried(items: string[], end: number, by: number): boolean;
}

/** Nobody listens. */
export const unheard: SheetEvents = {
  begun() {},
  used() {},
  taken() {},
  chosen() {},
  types() {},
  picked() {},
  needs() {},
  inked() {},
  pulled() {},
  turned() {},
  buttonPressed() {},
  undo() {},
  redo() {},
  say() {},
  pressed: () => false,
  mayWriteOn: () => true,
  carried: () => false,
};
