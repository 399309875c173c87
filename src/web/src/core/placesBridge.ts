/** Notebooks and libraries as they were, compared with how they are, and had back. */
export interface PlacesBridge {
  Move(document: number, time: number, most: number): number;
  Close(document: number): void;
  Outline(notebook: number): string;
  Nodes(library: number): string;
  Differences(document: number, ids: string[]): number[];
  PlanBack(document: number, ids: string[], isGuest: boolean): number[];
  HaveBack(document: number, now: number): Uint8Array;
  TimeAt(sittings: number[], position: number): number;
  PositionOf(sittings: number[], time: number): number;
  Beside(sittings: number[], time: number, later: boolean): number;
  ChartOf(document: number): string;
}
