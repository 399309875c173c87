/** Formulas on pages; see FormulaBridge in CalmQuill.Core.Browser. ThingBridge lays them down, and what is typed in one goes through TextBridge. */
export interface FormulaBridge {
  At(page: number, x: number, y: number): string;
  /** JSON of {@link ShownFormula}. */
  Formula(page: number, item: string): string;
  Selection(page: number): number[];
}

/** A formula as it is shown. */
export interface ShownFormula {
  /** What was typed, line by line. */
  text: string;
  /** What is done with it: words, parted by blanks. */
  shows: string;
  /** All that is shown, as lines of letters. */
  lines: string[];
  /** The letters that it can be worked out for. */
  letters: string[];
  /** The one that it is; empty for none. */
  letter: string;
  /** What is to be said of it, and what is wrong, as sentences of Core; empty for nothing. */
  told: string;
  problem: string;
}
