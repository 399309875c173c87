/** Finding what is typed on a page; see FindBridge in CalmQuill.Core.Browser. */
export interface FindBridge {
  /** JSON of {@link FoundWords}, from the top of the page down. */
  Find(page: number, sought: string, exact: boolean): string;
  Replace(page: number, sought: string, exact: boolean, words: string, at: number, now: number): Uint8Array;
}

/** Words that were found; 0.01 mm on the page. */
export interface FoundWords {
  area: [number, number, number, number];
  /** The corners of what lies behind them, line by line: x and y in turn. */
  corners: number[][];
}
