/** What files are called, and what may be kept of them. */
export interface AssetBridge {
  IdOf(digest: Uint8Array): string;
  /** JSON of {@link FileLook}. */
  Look(file: Uint8Array): string;
  Cleaned(file: Uint8Array): Uint8Array;
  Freeze(page: number, paper: string): Uint8Array;
}

/** What a file is by its bytes. */
export interface FileLook {
  type: string;
  /** Pixels; of a frozen page 0.01 mm; else 0. */
  width: number;
  height: number;
  /** Whether it says that another side of it is up. */
  turned: boolean;
  /** Why it may not be kept, in a sentence; empty where it may. */
  problem: string;
}
