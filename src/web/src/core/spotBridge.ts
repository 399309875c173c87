/** Spots of a page: marks, links, headings, curtains. */
export interface SpotBridge {
  Fit(page: number, factor: number, dx: number, dy: number, now: number): Uint8Array;
  Turn(page: number, height: number, now: number): Uint8Array;
  Spots(page: number): string;
  Add(
    page: number,
    spot: string,
    kind: number,
    area: number[],
    items: string[],
    fields: number[],
    values: string[],
    now: number,
  ): Uint8Array;
  Set(page: number, spot: string, fields: number[], values: string[], now: number): Uint8Array;
  Move(page: number, spot: string, dx: number, dy: number, now: number): Uint8Array;
  Cut(page: number, area: number[], spot: string): Uint8Array;
}
