/** What the hand takes, moves, changes, lays down and makes room for. */
export interface HandBridge {
  Select(page: number, loop: Float64Array, share: number, kinds: number, layer: string): string[];
  At(page: number, x: number, y: number, reach: number, kinds: number, layer: string): string[];
  LockedAt(page: number, x: number, y: number, reach: number): string[];
  OpenOf(page: number, items: string[]): string[];
  SetWidth(page: number, items: string[], width: number, now: number): Uint8Array;
  SelectAll(page: number, kinds: number, layer: string): string[];
  AllOpen(page: number): string[];
  Keep(page: number, items: string[]): number;
  IsKept(page: number, number: number): boolean;
  ShiftKept(page: number, number: number, dx: number, dy: number, now: number): Uint8Array;
  SetKept(page: number, number: number, fields: number[], values: string[], now: number): Uint8Array;
  BoundsOf(page: number, items: string[]): number[];
  About(page: number, items: string[]): string;
  Remove(page: number, items: string[], now: number): Uint8Array;
  RemoveFramed(page: number, items: string[], now: number): Uint8Array;
  Shift(page: number, items: string[], dx: number, dy: number, now: number): Uint8Array;
  Transform(page: number, items: string[], matrix: number[], now: number): Uint8Array;
  Reshaped(page: number, items: string[], matrix: number[]): string;
  Set(page: number, items: string[], fields: number[], values: string[], now: number): Uint8Array;
  Order(page: number, items: string[], front: boolean, now: number): Uint8Array;
  Cut(page: number, items: string[]): Uint8Array;
  BoundsOfPiece(piece: Uint8Array): number[];
  BeginLay(page: number, piece: Uint8Array, dx: number, dy: number, layer: string): number;
  LayMore(page: number, most: number, now: number): Uint8Array;
  GiveUpLaying(page: number): number;
  LastLaid(page: number): string[];
  NoteLaid(page: number): void;
  BeginRoom(page: number, line: number, sideways: boolean): number;
  RoomItems(): string[];
  RoomLeaving(by: number, end: number): string[];
  EndRoomCarrying(page: number, by: number, leaving: string[], now: number): Uint8Array;
  EndRoom(page: number, by: number, now: number): Uint8Array;
  EvenLines(page: number, items: string[], strength: number, words: boolean, height: boolean): string;
  MakeLinesEven(
    page: number,
    items: string[],
    strength: number,
    words: boolean,
    height: boolean,
    now: number,
  ): Uint8Array;
  Scratched(page: number, stroke: number): string[];
  RetracePlan(page: number, items: string[]): string;
  RetracePart(page: number, item: string, after: number, takes: number): Uint8Array;
  LoupeStep(page: number, paper: string, box: number[], begin: number, way: number): number[];
}
