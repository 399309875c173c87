/** Documents of any kind: opened, applied to, encoded, signed. */
export interface DocumentBridge {
  WrittenAt(batch: Uint8Array): number;
  Start(replica: string, author: string): void;
  CorrectClock(serverNow: number, deviceNow: number): void;
  Rehearse(on: boolean): void;
  Open(kind: number): number;
  Close(handle: number): void;
  Apply(handle: number, batch: Uint8Array): number;
  EncodeState(handle: number): Uint8Array;
  Snapshot(handle: number): Uint8Array;
  RestampAhead(batch: Uint8Array, serverNow: number, now: number): Uint8Array;
  NumberOf(batch: Uint8Array): string;
  IdsOf(batches: Uint8Array): string[];
  About(batches: Uint8Array): string;
  PieceOf(batches: Uint8Array): Uint8Array;
  Renumber(refused: Uint8Array, waiting: Uint8Array, replica: string): Uint8Array;
  Number(): string;
  Renew(old: string, fresh: string): void;
}
