/** Strokes while they are written, and how a pen writes. */
export interface PenBridge {
  Begin(pen: number[], stabilising: number): number;
  Add(stroke: number, samples: Int32Array): Uint8Array;
  Samples(stroke: number, from: number): number[];
  End(stroke: number): void;
  Keep(stroke: number, page: number, layer: string, startedAt: number, now: number): Uint8Array;
  Drop(stroke: number): void;
  /** Two ends and a width; empty where no words are meant. Of each word five numbers: the ends of its baseline, the height of its type. */
  Along(places: number[], words: number[]): number[];
  LastMade(): string;
  Grain(stroke: number): number;
  GrainTile(level: number, points: number): Uint8Array;
  GrainOf(pen: number[], samples: Int32Array): number;
  OutlineOf(pen: number[], samples: Int32Array): Uint8Array;
  ResponseOf(pen: number[]): number[];
}
