import type { Core } from '../../core/runtime';
import type { Area } from '../../model/drawing';

/** A piece of a page that was copied or cut; kept so that it can be laid down on another page, in another notebook, or in another window. */
export interface Piece {
  bytes: Uint8Array;
  area: Area;
  /** The space it was copied in. */
  space: string;
}

const key = 'quill.piece';
/** Larger pieces are kept in this window alone. */
const mostKept = 1_500_000;
let held: Piece | undefined;

export function keepPiece(core: Core, bytes: Uint8Array, space: string): void {
  const area = core.HandBridge.BoundsOfPiece(bytes);
  if (area.length < 4) return;
  held = { bytes: bytes.slice(), area: area as unknown as Area, space };
  if (bytes.length > mostKept) localStorage.removeItem(key);
  else localStorage.setItem(key, `${space} ${btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''))}`);
}

export function keptPiece(core: Core): Piece | undefined {
  const [space = '', kept] = (localStorage.getItem(key) ?? '').split(' ');
  if (kept) {
    const bytes = Uint8Array.from(atob(kept), (letter) => letter.charCodeAt(0));
    const area = core.HandBridge.BoundsOfPiece(bytes);
    if (area.length === 4) return { bytes, area: area as unknown as Area, space };
  }
  return held;
}

/** What was put onto the clipboard of the device last as words of a piece, and whether that is still what is there is told by comparing. */
let words: string | undefined;

/** Puts the words of a piece onto the device's clipboard, for other programs; without any, so that nothing older lies there. */
export function keepWords(text: string): void {
  words = text;
  // A browser that does not allow it leaves what was there, which is then not taken for ours.
  navigator.clipboard?.writeText(text).catch(() => (words = undefined));
}

export function copiedWords(): string | undefined {
  return words;
}

/** Things that came to another page from this one, to be selected when it is shown. They are on it already. */
let carried: { page: string; items: string[] } | undefined;

export function carry(page: string, items: string[]): void {
  carried = { page, items };
}

/** What was carried to a page, once. */
export function arrived(page: string): string[] {
  if (carried?.page !== page) return [];
  const { items } = carried;
  carried = undefined;
  return items;
}
