/** Typing into texts on a page; see TextBridge in CalmQuill.Core.Browser. */
export interface TextBridge {
  At(page: number, x: number, y: number, reach: number): string;
  TickAt(page: number, x: number, y: number): string;
  Tick(page: number, tick: string, now: number): Uint8Array;
  RowAt(page: number, paper: string, x: number, y: number): number[];
  Add(
    page: number,
    x: number,
    y: number,
    width: number,
    ruling: number,
    looks: string,
    layer: string,
    now: number,
  ): Uint8Array;
  Open(page: number, item: string): void;
  Close(page: number): void;
  SetMeasure(page: number, lines: number, now: number): Uint8Array;
  Typing(page: number): string;
  LetterAt(page: number, x: number, y: number): number;
  Caret(page: number): string[];
  CaretOf(page: number, item: string, from: string, to: string): number[];
  Text(page: number, from: number, to: number): string;
  Select(page: number, from: number, to: number): void;
  Type(page: number, from: number, to: number, letters: string): void;
  Paste(page: number, from: number, to: number, passage: string): void;
  Enter(page: number, from: number, to: number): void;
  Back(page: number, at: number): boolean;
  Tab(page: number, from: number, to: number, by: number): void;
  Format(page: number, from: number, to: number, trait: string, value: string): void;
  End(page: number, now: number): Uint8Array;
  Ahead(page: number): Uint8Array;
  Finish(page: number, ahead: Uint8Array, now: number): Uint8Array;
  Looks(page: number, from: number, to: number): string;
  Told(page: number): string;
}
