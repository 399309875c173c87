/** Taking back what was done in libraries and notebooks. */
export interface UndoBridge {
  TakeNote(on: boolean): void;
  Last(): Uint8Array;
  Back(document: number, changes: Uint8Array, now: number): Uint8Array;
}
