import type { Area } from '../../model/drawing';
import type { Pen } from '../../model/pens';

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
