import type { Area } from '../../model/drawing';

/** Kinds of things on a page, to choose by; the numbers are Core's. */
export const itemKinds = {
  ink: 1,
  highlighter: 2,
  shape: 4,
  area: 8,
  text: 16,
  picture: 32,
  slip: 64,
  plot: 128,
  table: 256,
  file: 512,
  formula: 1024,
} as const;
export const allKinds = 2047;

/** The layer that every page has. */
export const firstLayer = '00000000-0000-0000-0000-000000000000';

/** Where typing begins, in page units; with a width where a box was dragged. */
/** A closed shape into which can be typed. */
export interface ShapeToType {
  id: string;
  /** Its words; empty where it has none yet. */
  words: string;
  /** Its middle. */
  x: number;
  y: number;
}

/** As Core tells of one; undefined for none. */
export function shapeToType(told: string): ShapeToType | undefined {
  const [id, words, x, y] = told.split('|');
  return id ? { id, words: words ?? '', x: Number(x), y: Number(y) } : undefined;
}

/** Where something is to be typed. */
export interface TypingPlace {
  x: number;
  y: number;
  width?: number;
  /** What is typed into, at its end; else what is there. */
  item?: string;
  /** The shape that words are begun in. */
  shape?: ShapeToType;
}

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
