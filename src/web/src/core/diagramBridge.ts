/** Connectors, words in shapes, branch maps. A look is three numbers: route, start, end. */
export interface DiagramBridge {
  Between(page: number, x1: number, y1: number, x2: number, y2: number, look: number[]): string;
  Connect(page: number, ends: number[], look: number[], pen: number[], layer: string, now: number): Uint8Array;
  Look(page: number, items: readonly string[]): string;
  SetLook(page: number, items: readonly string[], route: number, start: number, end: number, now: number): Uint8Array;
  LetGo(page: number, items: readonly string[], now: number): Uint8Array;
  ShapeAt(page: number, x: number, y: number): string;
  ShapeOf(page: number, items: readonly string[]): string;
  AddWords(page: number, shape: string, looks: string, layer: string, now: number): Uint8Array;
  Fit(page: number, words: string, now: number): Uint8Array;
  AddBranch(page: number, from: string, layer: string, now: number): Uint8Array;
  Branch(page: number): string;
  Branches(page: number, shape: string): number;
  Arrange(page: number, shape: string, now: number): Uint8Array;
}
