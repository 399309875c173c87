/** A page: its steps, what is painted of it, and erasing. */
export interface PageBridge {
  Tint(page: number, people: string[], colours: number[], hidden: string[]): void;
  Writers(page: number): string;
  Guard(page: number, touch: string, role: string): void;
  /** Puts a thing on the page, given as the JSON form of what adds it. */
  Put(page: number, thing: string, now: number): Uint8Array;
  Copy(page: number, now: number): Uint8Array;
  BeginUndo(page: number): number;
  BeginRedo(page: number): number;
  Step(page: number, again: boolean): string[];
  Switch(page: number, operations: string[], on: boolean, now: number): Uint8Array;
  GoOn(page: number, most: number, now: number): Uint8Array;
  GiveUp(page: number): number;
  Steps(page: number): number;
  Build(): string;
  OpenSurface(page: number, painted: boolean): number;
  CloseSurface(page: number, surface: number): void;
  TakeChanged(page: number, surface: number, most: number): Uint8Array;
  BeginErase(page: number, radius: number, whole: boolean, kinds: number, layer: string): void;
  EraseAlong(page: number, spots: Float64Array): Uint8Array;
  EndErase(page: number, now: number): Uint8Array;
}
