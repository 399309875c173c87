/** What part of the plane a plot shows: its left, right, lower and upper edge. */
export type PlotRange = [number, number, number, number];

/** A path of SVG, its colour, and where its own measures lie in the plot's box. */
export type PlotPath = [d: string, colour: string, place: number[]];

/** What part of the plane a plot shows, while a hand moves it; shares are of what is shown, from the left and from below. */
export interface PlotBridge {
  Moved(range: PlotRange, right: number, up: number): PlotRange;
  Widened(range: PlotRange, across: number, up: number, x: number, y: number): PlotRange;
  /** As a field holds it. */
  Text(range: PlotRange): string;
  /** JSON of {@link PlotPath}, from the back. */
  Drawn(page: number, item: string, range: PlotRange): string;
}
