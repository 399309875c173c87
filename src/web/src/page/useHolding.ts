import { useEffect, useMemo, useRef } from 'react';
import { useWorkspace } from '../data/useWorkspace';
import type { Taken } from '../sheet/hand/things';
import { identity, type Matrix } from '../sheet/ink/floatInk';
import type { Selection } from '../sheet/selection/useSelection';
import { cornersOf } from '../sheet/selection/matrix';
import { paced } from '../sync/paced';
import { writePlaces } from '../sync/places';

/** Others are told where something is dragged no more often than this, ms. */
const between = 60;
/** What stays selected is told again so often, for who comes later and for who lost it, ms. */
const again = 2_000;

/** Tells the others on the page what one has selected, and where one drags it. Answers with the selection, whose dragging is told. */
export function useHolding(
  address: string,
  taken: Taken | undefined,
  selection: Selection | undefined,
): Selection | undefined {
  const { live } = useWorkspace();
  const matrix = useRef<Matrix>(identity);
  const latest = useRef(taken);
  latest.current = taken;
  const tell = useMemo(
    () =>
      paced(between, () => {
        const held = latest.current;
        live.say('Hold', address, held ? writePlaces(cornersOf(held.area, matrix.current)) : new Uint8Array());
      }),
    [live, address],
  );
  useEffect(() => {
    matrix.current = identity;
    if (!taken) return undefined;
    tell();
    const repeating = setInterval(() => tell(), again);
    return () => {
      clearInterval(repeating);
      tell();
    };
  }, [tell, taken]);
  return useMemo(
    () =>
      selection && {
        ...selection,
        preview: (to) => {
          matrix.current = to ?? identity;
          tell();
          selection.preview(to);
        },
      },
    [tell, selection],
  );
}
