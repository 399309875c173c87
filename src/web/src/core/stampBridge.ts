/** Stamps: pieces of pages that are laid down again and again, and the files in which they are kept. */
export interface StampBridge {
  Keep(page: number, items: readonly string[]): Uint8Array;
  OfPicture(asset: string, width: number, height: number): Uint8Array;
  Read(file: Uint8Array): Uint8Array;
  Shipped(): string[];
  ShippedPiece(name: string): Uint8Array;
  Placed(piece: Uint8Array, x: number, y: number, width: number, colour: string): Uint8Array;
  Face(piece: Uint8Array): Uint8Array;
}
