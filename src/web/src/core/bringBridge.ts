/** The pages of files that are brought in. Lengths are 0.01 mm. */
export interface BringBridge {
  /** JSON of {@link LaidSheet}s. Of each leaf four measures: page (0 for a picture), width, height, quarters to the right. */
  Lay(
    assets: string[],
    measures: number[],
    laying: number,
    levels: number[],
    titles: string[],
    leads: number[],
  ): string;
  Range(text: string, count: number): number[];
  RangeOf(pages: number[]): string;
  Into(notebook: number, parent: string, after: string, seed: string, now: number): Uint8Array;
  Pages(notebook: number, parent: string, after: string, seed: string): string[];
  Laid(page: number, now: number): Uint8Array;
}

/** How leaves are laid on sheets; the numbers are Core's. */
export const layings = { whole: 1, below: 0, two: 2, four: 4, six: 6, together: -1 } as const;
export type Laying = keyof typeof layings;

/** A page as it will be. */
export interface LaidSheet {
  paper: string;
  width: number;
  height: number;
  title: string;
  /** The sections that begin with it, the outermost first. */
  begins: string[];
  /** Its first leaf, by its place among all. */
  first: number;
  leaves: { left: number; top: number; width: number; height: number }[];
}
