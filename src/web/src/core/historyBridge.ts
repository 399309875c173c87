/** A page as it was, compared with how it is, and had back. */
export interface HistoryBridge {
  Open(page: number): number;
  Show(page: number): void;
  Close(page: number): void;
  Move(page: number, count: number, most: number): number;
  Compare(page: number, on: boolean, added: boolean, removed: boolean): void;
  Differences(page: number): number[];
  ChartOf(page: number): string;
  CountAt(page: number, position: number): number;
  Beside(page: number, count: number, later: boolean): number;
  CountBy(page: number, time: number): number;
  Moment(page: number, count: number): number[];
  Last(page: number, count: number): string[];
  Choose(page: number, polygon: number[]): string;
  BeginHaveBack(page: number, items: string[]): number[];
  Copy(page: number, onto: number, now: number): Uint8Array;
}
