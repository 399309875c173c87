/** The layers of a page. */
export interface LayerBridge {
  All(page: number): string;
  Counts(page: number): number[];
  Add(page: number, layer: string, name: string, after: string, now: number): Uint8Array;
  Move(page: number, layer: string, after: string, now: number): Uint8Array;
  Set(page: number, layer: string, field: number, value: string, now: number): Uint8Array;
}
