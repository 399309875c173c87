/** A person's aside, laid over the page that it belongs to. */
export interface AsideBridge {
  Lay(aside: number, page: number): boolean;
  Anchor(aside: number, now: number): Uint8Array;
}
