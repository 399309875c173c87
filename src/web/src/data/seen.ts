import { useMemo } from 'react';
import type { Seen } from '../core/seenBridge';
import { useFonts } from '../letters/useFonts';
import { minutesAheadNow } from '../model/zone';
import type { OpenDocument } from '../sync/openDocument';
import { useWorkspace } from './useWorkspace';

const none: Seen[] = [];

/** What is seen among the typed words of a page, anew with every change of it; nothing as long as only its outlines are shown. */
export function useSeen(page: OpenDocument, isOn: boolean): Seen[] {
  const { core } = useWorkspace();
  const version = page.getVersion();
  const fonts = useFonts();
  return useMemo(
    () => (isOn && !page.isHeld ? (JSON.parse(core.SeenBridge.Seen(page.handle, minutesAheadNow())) as Seen[]) : none),
    [core, page, version, fonts, isOn],
  );
}

/** What of it is at a place of the page, or so near that a press there means it; 0.01 mm. */
export function seenAt(seen: readonly Seen[], x: number, y: number, reach: number): Seen | undefined {
  return seen.findLast(({ corners }) =>
    corners.some((line) => {
      const [left, top, right, bottom] = boxOf(line);
      return x >= left - reach && x <= right + reach && y >= top - reach && y <= bottom + reach;
    }),
  );
}

/** The box around corners, x and y in turn. */
export function boxOf(corners: readonly number[]): [number, number, number, number] {
  const across = corners.filter((_, i) => i % 2 === 0);
  const down = corners.filter((_, i) => i % 2 === 1);
  return [Math.min(...across), Math.min(...down), Math.max(...across), Math.max(...down)];
}

/** Whether words that lead somewhere are underlined as such already, and say nothing of an address themselves. */
export function isMadeLink({ kind, value, words }: Seen): boolean {
  return kind === 'link' && value !== words && value !== `https://${words}`;
}
