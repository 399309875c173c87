/** Shapes: made out of strokes, dragged, joined, filled; and guides. */
export interface ShapeBridge {
  Tidy(stroke: number, page: number, paper: string, join: number, printed: number, now: number, least: number): string;
  Between(kind: number, x1: number, y1: number, x2: number, y2: number, even: boolean): string;
  Join(page: number, shape: string, without: string[], paper: string, join: number, printed: number): string;
  Outline(shape: string, pen: number[]): Uint8Array;
  Add(
    page: number,
    shape: string,
    pen: number[],
    fill: number,
    replaces: string[],
    layer: string,
    now: number,
  ): Uint8Array;
  AddTidied(
    stroke: number,
    page: number,
    shape: string,
    pen: number[],
    fill: number,
    replaces: string[],
    layer: string,
    startedAt: number,
    now: number,
  ): Uint8Array;
  Handles(page: number, item: string): string;
  Drag(page: number, item: string, handle: number, x: number, y: number, join: number): string;
  Drop(page: number, item: string, handle: number, x: number, y: number, join: number, now: number): Uint8Array;
  AsDrawn(page: number, item: string): string;
  Change(page: number, item: string, shape: string, now: number): Uint8Array;
  Fill(
    page: number,
    paper: string,
    x: number,
    y: number,
    gap: number,
    colour: number,
    layer: string,
    now: number,
  ): Uint8Array;
  ClosedAt(page: number, x: number, y: number): string;
  Keep(round: boolean, gx: number, gy: number, angle: number, size: number, x: number, y: number): number[];
  EdgeAt(
    round: boolean,
    gx: number,
    gy: number,
    angle: number,
    size: number,
    x: number,
    y: number,
    reach: number,
  ): number[];
  Resting(angle: number): number;
}
