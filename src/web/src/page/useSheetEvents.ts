import { useEffect } from 'react';
import { useStable } from '../ui/useStable';
import type { Blotter } from '../sheet/blotter/blotter';
import type { SheetEvents } from '../sheet/hand/events';
import type { Taken } from '../sheet/hand/things';
import type { Tools } from '../sheet/hand/tool';

/** The blotter tells these, and no one has to tell it anew when they are others. */
export function useSheetEvents(blotter: Blotter | undefined, events: SheetEvents): void {
  const stable = useStable(events);
  useEffect(() => blotter?.listen(stable), [blotter, stable]);
}

interface AtHand {
  tools: Tools;
  reading: boolean;
  layer: string;
  taken: Taken | undefined;
  printed: readonly number[];
}

/** The blotter has what the hand has, anew when some of it is another. */
export function useAtHand(blotter: Blotter | undefined, { tools, reading, layer, taken, printed }: AtHand): void {
  const { tool, standIns, habits, guide, zoomLocked } = tools;
  useEffect(
    () =>
      blotter?.give({ tool: reading ? undefined : tool, standIns, habits, guide, printed, layer, taken, zoomLocked }),
    [blotter, reading, tool, standIns, habits, guide, printed, layer, taken, zoomLocked],
  );
}
