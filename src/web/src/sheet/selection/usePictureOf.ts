import { useMemo } from 'react';
import { useWorkspace } from '../../data/useWorkspace';
import type { ShownPicture, ShownPlot } from '../../core/thingBridge';
import type { OpenDocument } from '../../sync/openDocument';
import { itemKinds } from '../hand/things';
import type { Selection } from './useSelection';

/** A picture that was taken alone. */
export interface TakenPicture {
  item: string;
  shown: ShownPicture;
}

/** The picture that was taken, where it is nothing else and may be changed. */
export function usePictureOf(page: OpenDocument, { taken, about }: Selection): TakenPicture | undefined {
  const { core } = useWorkspace();
  const item =
    taken.items.length === 1 && about.kinds === itemKinds.picture && !about.locked ? taken.items[0] : undefined;
  const version = page.getVersion();
  return useMemo(() => {
    const told = item ? core.ThingBridge.Picture(page.handle, item) : '';
    return item && told ? { item, shown: JSON.parse(told) as ShownPicture } : undefined;
  }, [core, page, item, version]);
}

/** A plot that was taken alone. */
export interface TakenPlot {
  item: string;
  shown: ShownPlot;
}

/** The same of a plot. */
export function usePlotOf(page: OpenDocument, { taken, about }: Selection): TakenPlot | undefined {
  const { core } = useWorkspace();
  const item = taken.items.length === 1 && about.kinds === itemKinds.plot && !about.locked ? taken.items[0] : undefined;
  const version = page.getVersion();
  return useMemo(() => {
    const told = item ? core.ThingBridge.Plot(page.handle, item) : '';
    return item && told ? { item, shown: JSON.parse(told) as ShownPlot } : undefined;
  }, [core, page, item, version]);
}
