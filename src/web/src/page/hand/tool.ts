import type { Area } from '../../papers/drawing';
import type { Pen } from '../ink/pens';

/** Kinds of things on a page, to choose by; the numbers are Core's. */
export const itemKinds = { ink: 1, highlighter: 2, shape: 4, area: 8 } as const;
export const allKinds = 15;

/** What a shape tool draws: what the hand meant, or a chosen kind dragged out. */
export const shapeKinds = {
  free: 0,
  line: 1,
  arrow: 2,
  doubleArrow: 3,
  circle: 4,
  ellipse: 5,
  triangle: 6,
  square: 7,
  rectangle: 8,
  rhombus: 9,
  parallelogram: 10,
  trapezoid: 11,
  polygon: 12,
  star: 14,
  arc: 15,
  wave: 17,
} as const;
export type ShapeChoice = keyof typeof shapeKinds;

export interface EraserTool {
  /** Whole things, what is touched, or all inside a loop. */
  way: 'touched' | 'whole' | 'loop';
  /** Diameter, 0.01 mm. */
  size: number;
  onlyHighlighter: boolean;
  onlyLayer: boolean;
  /** Whether the pen is in the hand again after one pass. */
  back: boolean;
}

export interface LoopTool {
  box: boolean;
  /** How much of a thing must lie inside, 0 to 1. */
  share: number;
  /** Which kinds it takes. */
  kinds: number;
  onlyLayer: boolean;
}

export interface ShapeTool {
  kind: ShapeChoice;
  /** #rrggbb, or empty for none. */
  fill: string;
  fillOpacity: number;
}

export interface FillTool {
  colour: string;
  opacity: number;
  /** How wide a gap is closed, 0.01 mm. */
  gap: number;
}

/** What is in the hand. */
export type Tool =
  | { name: 'pen'; pen: Pen }
  | ({ name: 'eraser' } & EraserTool)
  | ({ name: 'loop' } & LoopTool)
  | ({ name: 'shape'; pen: Pen } & ShapeTool)
  | ({ name: 'fill' } & FillTool)
  | { name: 'room'; sideways: boolean; toNext: boolean }
  | { name: 'curtain' }
  | { name: 'mark' }
  | { name: 'pick' }
  | { name: 'read' };

/** What a loop or box took: things, or a bare part of the page. */
export interface Taken {
  items: string[];
  area: Area;
}

/** A ruler or compass that lies on the page; see Core's Guide. */
export interface Guide {
  round: boolean;
  x: number;
  y: number;
  angle: number;
  /** Half the length, or the radius; 0.01 mm. */
  size: number;
}

/** What pen and finger do, a person's own choice. */
export interface HandSettings {
  finger: 'scroll' | 'erase' | 'select' | 'write' | 'nothing';
  /** Two fingers tapping undo, three redo. */
  taps: boolean;
  button: 'eraser' | 'loop' | 'pen';
  /** Whether the side button works while it is held; else it changes tools. */
  buttonHeld: boolean;
  tail: 'eraser' | 'loop';
  leftHanded: boolean;
  /** How long a pause makes a shape come out true, milliseconds; 0 for never. */
  tidyAfter: number;
  /** How large what is meant as a shape is at least when the pen rests, 0.01 mm. */
  tidyLeast: number;
  /** How near ends are joined, 0.01 mm; 0 for never. */
  join: number;
  /** What meets the paper's own lines. */
  joinPrinted: JoinPrinted;
  scratch: boolean;
  dimPaper: boolean;
  /** Nudge by an arrow key, 0.01 mm. */
  nudge: number;
}

const printedNumbers = { never: 0, straight: 1, all: 2 } as const;

export type JoinPrinted = keyof typeof printedNumbers;

/** As Core counts them. */
export function joinPrintedNumber({ joinPrinted }: HandSettings): number {
  return printedNumbers[joinPrinted] ?? printedNumbers.straight;
}

export const usualHand: HandSettings = {
  finger: 'scroll',
  taps: true,
  button: 'eraser',
  buttonHeld: true,
  tail: 'eraser',
  leftHanded: false,
  tidyAfter: 650,
  tidyLeast: 1500,
  join: 250,
  joinPrinted: 'straight',
  scratch: false,
  dimPaper: false,
  nudge: 100,
};
