/** What is seen among typed words that something can be done with; see SeenBridge in CalmQuill.Core.Browser. */
export interface SeenBridge {
  /** JSON of {@link Seen}; the clock of the place is so many minutes ahead of UTC. */
  Seen(page: number, minutes: number): string;
}

export type SeenKind = 'link' | 'mail' | 'phone' | 'day' | 'time' | 'sum';

/** Words that something can be done with. */
export interface Seen {
  /** The text, or the cell of a table, in which they stand. */
  item: string;
  from: number;
  to: number;
  kind: SeenKind;
  /** The same in one form: a link's target, `name@example.org`, `+49301234567`, `2026-10-09`, `14:30`, and of a sum what it comes to. */
  value: string;
  words: string;
  /** The paragraph in which they stand. */
  line: string;
  /** The corners of what lies behind them, line by line: x and y in turn, 0.01 mm. */
  corners: number[][];
}
