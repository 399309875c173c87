/** Tables on pages; see TableBridge in CalmQuill.Core.Browser. A cell is named by its table's id and its own, parted by a blank. */
export interface TableBridge {
  Add(
    page: number,
    x: number,
    y: number,
    widths: number[],
    heights: number[],
    shows: string,
    layer: string,
    now: number,
  ): Uint8Array;
  AddCells(page: number, x: number, y: number, width: number, typed: string, layer: string, now: number): Uint8Array;
  IsDrawn(page: number, items: string[]): boolean;
  FromDrawn(page: number, items: string[], layer: string, now: number): Uint8Array;
  Made(): string;
  /** JSON of {@link ShownTable}. */
  Table(page: number, item: string): string;
  /** JSON of {@link ShownCell}; empty where it is not seen. */
  Cell(page: number, cell: string): string;
  /** The name of the cell at a place; empty beyond the table's edge. */
  At(page: number, item: string, row: number, column: number): string;
  /** Cells as a spreadsheet takes them, and as HTML; all of them where none are named, nothing where there is no table. */
  Sheet(page: number, item: string, at: number[]): string[];
  Do(page: number, item: string, what: TableDeed, at: number[], words: string, now: number): Uint8Array;
  /** The first row and column and the last ones of the cells from one to another; nothing where one of them is gone. */
  Between(page: number, cell: string, other: string): number[];
  Beside(page: number, cell: string, columns: number, rows: number): string;
  /** The points and the names of the scales; nothing where there are none. */
  Plotted(page: number, item: string, colour: string): string[];
}

/** What can be done to a table. */
export type TableDeed =
  | 'add-rows'
  | 'add-columns'
  | 'remove-row'
  | 'remove-column'
  | 'move-row'
  | 'move-column'
  | 'height'
  | 'width'
  | 'fit'
  | 'total'
  | 'fill'
  | 'look'
  | 'empty'
  | 'join'
  | 'part'
  | 'sort'
  | 'paste';

/** Cells beside and below each other. */
export interface CellRange {
  row: number;
  column: number;
  lastRow: number;
  lastColumn: number;
}

export interface ShownCell extends CellRange {
  name: string;
  /** rrggbbaa; empty for none. */
  fill: string;
}

/** A table as it is shown; lengths are 0.01 mm. */
export interface ShownTable {
  /** Where its own measures lie on the page: x' = a·x + c·y + e, y' = b·x + d·y + f. */
  place: [number, number, number, number, number, number];
  /** The edges of its columns and rows, one more than there are. */
  across: number[];
  down: number[];
  /** Words that say how it looks, parted by blanks. */
  shows: string;
  /** What stands under each column. */
  totals: string[];
}
