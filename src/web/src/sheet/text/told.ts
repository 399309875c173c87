/** Letters side by side on a line that look alike; lengths are 0.01 mm. */
export interface ToldSpan {
  text: string;
  family: string;
  size: number;
  bold: boolean;
  italic: boolean;
  /** How far above the line they stand. */
  rise: number;
  width: number;
}

/** A line: the letters from `start` to `end` of its paragraph, and where it stands in the box of its text. */
export interface ToldLine {
  start: number;
  end: number;
  x: number;
  y: number;
  width: number;
  ascent: number;
  descent: number;
  /** How much wider each space is than usual. */
  stretch: number;
  fromRight: boolean;
  spans: ToldSpan[];
}

export interface ToldParagraph {
  id: number;
  /** Its first letter in the text. */
  start: number;
  y: number;
  /** Left out where they were told before. */
  lines?: ToldLine[];
}

/** A text that is typed into, as Core tells of it. */
export interface Told {
  /** Where its box lies: x' = a·x + c·y + e, y' = b·x + d·y + f. */
  place: [number, number, number, number, number, number];
  measure: number;
  /** The cell of a table that it is; empty for none. */
  cell: string;
  /** Another number whenever more of that table became another than letters; 0 for none. */
  edition: number;
  /** Whether its lines can be made longer and shorter. */
  hasEdge: boolean;
  box: [number, number, number, number];
  from: number;
  to: number;
  length: number;
  /** How many paragraphs from the beginning are as they were told before, and how many from the end are and moved by so much; they are not among what is told. */
  head: number;
  tail: number;
  startBy: number;
  yBy: number;
  paragraphs: ToldParagraph[];
}

/** What stands of each trait where something is selected; null for what is not the same throughout. */
export type Looks = Record<Trait, string | null>;

/** How letters and paragraphs can look; the names are Core's. */
export type Trait =
  | 'bold'
  | 'italic'
  | 'underline'
  | 'struck'
  | 'shift'
  | 'size'
  | 'family'
  | 'colour'
  | 'marker'
  | 'link'
  | 'style'
  | 'align'
  | 'indent'
  | 'list'
  | 'ticked'
  | 'above'
  | 'leading'
  | 'direction';

/** All paragraphs of what is told now, with what was told before. */
export function wholeOf(told: Told, before: readonly ToldParagraph[]): Told {
  const { head, tail, startBy, yBy } = told;
  const moved = before
    .slice(before.length - tail)
    .map(({ id, start, y }) => ({ id, start: start + startBy, y: y + yBy }));
  return { ...told, paragraphs: [...before.slice(0, head), ...told.paragraphs, ...moved] };
}
