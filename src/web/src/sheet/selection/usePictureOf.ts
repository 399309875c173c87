import { useMemo } from 'react';
import type { Core } from '../../core/runtime';
import type { ShownFormula } from '../../core/formulaBridge';
import type { ShownPicture, ShownPlot } from '../../core/thingBridge';
import type { ShownFile } from '../../data/keptFiles';
import { useWorkspace } from '../../data/useWorkspace';
import type { OpenDocument } from '../../sync/openDocument';
import { itemKinds } from '../hand/things';
import type { Selection } from './useSelection';

/** Something that was taken alone, and what it shows. */
interface Taken<Shown> {
  item: string;
  shown: Shown;
}

export type TakenPicture = Taken<ShownPicture>;

/** The picture that was taken, where it is nothing else and may be changed. */
export const usePictureOf = (page: OpenDocument, selection: Selection): TakenPicture | undefined =>
  useShownOf(page, selection, itemKinds.picture, pictureTold);

/** The same of a plot. */
export const usePlotOf = (page: OpenDocument, selection: Selection): Taken<ShownPlot> | undefined =>
  useShownOf(page, selection, itemKinds.plot, plotTold);

/** The same of a file. */
export const useFileOf = (page: OpenDocument, selection: Selection): Taken<ShownFile> | undefined =>
  useShownOf(page, selection, itemKinds.file, fileTold);

/** The same of a formula. */
export const useFormulaOf = (page: OpenDocument, selection: Selection): Taken<ShownFormula> | undefined =>
  useShownOf(page, selection, itemKinds.formula, formulaTold);

const formulaTold = ({ FormulaBridge }: Core, page: number, item: string): string => FormulaBridge.Formula(page, item);
const fileTold = ({ ThingBridge }: Core, page: number, item: string): string => ThingBridge.File(page, item);
const pictureTold = ({ ThingBridge }: Core, page: number, item: string): string => ThingBridge.Picture(page, item);
const plotTold = ({ ThingBridge }: Core, page: number, item: string): string => ThingBridge.Plot(page, item);

/** What was taken, where it is one thing of that kind that may be changed; `told` gives what it shows in JSON, empty where it is not there. */
function useShownOf<Shown>(
  page: OpenDocument,
  { taken, about }: Selection,
  kind: number,
  told: (core: Core, page: number, item: string) => string,
): Taken<Shown> | undefined {
  const { core } = useWorkspace();
  const item = taken.items.length === 1 && about.kinds === kind && !about.locked ? taken.items[0] : undefined;
  const version = page.getVersion();
  return useMemo(() => {
    const json = item ? told(core, page.handle, item) : '';
    return item && json ? { item, shown: JSON.parse(json) as Shown } : undefined;
  }, [core, page, item, version, told]);
}
