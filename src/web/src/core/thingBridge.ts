/** Pictures, slips and plots on pages; see ThingBridge in CalmQuill.Core.Browser. */
export interface ThingBridge {
  AddPictures(page: number, assets: string[], boxes: number[], layer: string, now: number): Uint8Array;
  AddFiles(
    page: number,
    assets: string[],
    names: string[],
    sizes: number[],
    x: number,
    y: number,
    layer: string,
    now: number,
  ): Uint8Array;
  AddPreview(page: number, card: string[], picture: string, at: number[], layer: string, now: number): Uint8Array;
  /** JSON of what data/keptFiles calls a file. */
  File(page: number, item: string): string;
  FileAt(page: number, x: number, y: number): string;
  AddSlip(
    page: number,
    x: number,
    y: number,
    width: number,
    height: number,
    colour: string,
    layer: string,
    now: number,
  ): Uint8Array;
  AddPlot(
    page: number,
    box: number[],
    table: string,
    points: string,
    axes: string,
    layer: string,
    now: number,
  ): Uint8Array;
  AddFormula(page: number, x: number, y: number, layer: string, now: number): Uint8Array;
  /** JSON of {@link ShownPlot}. */
  Plot(page: number, item: string): string;
  /** JSON of {@link PlotRows}. */
  PlotRows(typed: string, colour: string, fit: number): string;
  Made(): string[];
  Picture(page: number, item: string): string;
  /** JSON of {@link ShownLeaf}s. */
  Leaves(page: number): string;
  Replace(page: number, item: string, asset: string, across: number, down: number, now: number): Uint8Array;
  Clear(page: number, item: string, asset: string, strength: number, now: number): Uint8Array;
  AsItWas(page: number, item: string, now: number): Uint8Array;
  Folded(page: number, items: string[]): string;
  Fold(page: number, items: string[], folded: boolean, now: number): Uint8Array;
  /** “1” where all slips among them are pinned, empty where there is none. */
  Pinned(page: number, items: string[]): string;
  Pin(page: number, items: string[], pinned: boolean, now: number): Uint8Array;
  PinnedAt(page: number, x: number, y: number): string;
  AssetsOf(piece: Uint8Array): string[];
  AssetsIn(page: number): string[];
  BeginClearing(across: number, down: number): void;
  LookAt(dots: Uint8Array, from: number): void;
  Settle(): void;
  ClearRows(dots: Uint8Array, from: number, strength: number): Uint8Array;
}

/** What a plot shows. */
export interface ShownPlot {
  /** What stands in each of its fields, by their numbers. */
  fields: Record<string, string>;
  /** What is wrong with what was typed, by the fields' numbers. */
  problems: Record<string, string>;
  /** Left, right, bottom, top. */
  range: [number, number, number, number];
  /** Where that is drawn in its box: left, top, right, bottom, 0.01 mm. */
  plane: [number, number, number, number];
  /** Where its box lies on the page: x' = a·x + c·y + e, y' = b·x + d·y + f. */
  place: [number, number, number, number, number, number];
  /** The formulas of what was laid through points. */
  told: string[];
  /** Whether its first points are those of a table. */
  followsTable: boolean;
}

/** Points that were typed or pasted. */
export interface PlotRows {
  /** As a field holds them; empty for none. */
  text: string;
  /** The first row that is no point; 0 where all are. */
  wrong: number;
}

/** A page of a PDF file that is shown on a page. */
export type ShownLeaf = Pick<ShownPicture, 'asset' | 'leaf' | 'width' | 'height' | 'place'>;

/** A picture on a page as it is shown. */
export interface ShownPicture {
  asset: string;
  /** The file that it was brought in as. */
  original: string;
  /** The whole picture, its own measures: 0.01 mm. */
  width: number;
  height: number;
  /** What of it is shown: corners “x,y x,y …” in ten-thousandths of its sides. */
  cut: string;
  opacity: number;
  brightness: number;
  contrast: number;
  /** How strongly its paper was cleared away; 0 where it was not. */
  cleared: number;
  /** Which page of a PDF file it is; 0 for a picture. */
  leaf: number;
  /** Where its own measures lie on the page: x' = a·x + c·y + e, y' = b·x + d·y + f. */
  place: [number, number, number, number, number, number];
}
