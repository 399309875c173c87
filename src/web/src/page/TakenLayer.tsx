import { t } from '@lingui/core/macro';
import { type RefObject, useEffect, useMemo, useState } from 'react';
import { addSpot } from '../data/spots';
import { useWorkspace } from '../data/useWorkspace';
import { addressOf } from '../model/target';
import type { Blotter } from '../sheet/blotter/blotter';
import { itemKinds, shapeToType, type Taken, type TypingPlace } from '../sheet/hand/things';
import type { View } from '../sheet/ink/view';
import { SelectionBar } from '../sheet/selection/SelectionBar';
import { barSideOf, SelectionFrame } from '../sheet/selection/SelectionFrame';
import { ShapeHandles, useShapeHandles } from '../sheet/selection/ShapeHandles';
import type { Selection } from '../sheet/selection/useSelection';
import { usePictureOf } from '../sheet/selection/usePictureOf';
import { CropLayer } from '../sheet/things/picture/CropLayer';
import { mark } from '../sheet/tools/mark';
import type { Tools } from '../sheet/hand/tool';
import type { OpenDocument } from '../sync/openDocument';
import { copyText, say } from '../ui/saying';

interface TakenLayerProps {
  /** The layer that is written on; empty for the first. */
  layer: string;
  here: { space: string; notebook: string; page: string };
  selection: Selection;
  document: OpenDocument;
  holder: RefObject<HTMLDivElement | null>;
  blotter: Blotter | undefined;
  view: View;
  tools: Tools;
  setTaken: (taken: Taken | undefined) => void;
  onChoose: (spot: string) => void;
  onLink: () => void;
  /** Keeps it as a stamp. */
  onStamp: () => void;
  onEdge: (by: number, taken: Taken) => void;
  /** Types into a thing. */
  onType: (into: Pick<TypingPlace, 'item' | 'shape'>) => void;
  /** What is done with it on the person's own sheet: to give it to the page, where one may write there. Left out on the page itself. */
  onGive?: (() => void) | undefined;
}

/** A shape and its words are so few things. */
const mostOfShape = 4;

/** What was taken, framed, with its handles and the bar of what can be done with it. */
export function TakenLayer({
  layer,
  here,
  selection,
  document,
  holder,
  blotter,
  view,
  tools,
  setTaken,
  onChoose,
  onLink,
  onStamp,
  onEdge,
  onType,
  ...given
}: TakenLayerProps) {
  const { core } = useWorkspace();
  const [cropping, setCropping] = useState(false);
  const { taken, about } = selection;
  const { items, area } = taken;
  const framed = useMemo(
    () =>
      items.length <= mostOfShape && (about.kinds & itemKinds.shape) !== 0
        ? shapeToType(core.DiagramBridge.ShapeOf(document.handle, items))
        : undefined,
    [core, document, items, about],
  );
  const only =
    about.locked || (about.kinds & itemKinds.shape) === 0
      ? undefined
      : (framed?.id ?? (items.length === 1 ? items[0] : undefined));
  const handles = useShapeHandles(document, only);
  const picture = usePictureOf(document, selection);
  useEffect(() => setCropping(false), [picture?.item]);
  const barSide = blotter ? barSideOf(area, view, blotter.size) : 'below';
  if (cropping && picture)
    return (
      <CropLayer
        page={document}
        item={picture.item}
        picture={picture.shown}
        view={view}
        onDone={() => setCropping(false)}
      />
    );
  return (
    <div
      className="pointer-events-none absolute inset-0 z-10 overflow-hidden"
      data-testid="selection"
      data-items={items.length}
    >
      <SelectionFrame
        selection={selection}
        view={view}
        handles={handles.length === 0}
        barSide={barSide}
        onEdge={(by) => onEdge(by, taken)}
        edgeOf={() => holder.current!.getBoundingClientRect()}
        onTap={(x, y) => blotter?.tapTaken(x, y)}
        writes={(event) => {
          // A pen that was chosen writes, whatever lies under it.
          if (event.pointerType !== 'pen' || tools.held !== 'pen') return false;
          setTaken(undefined);
          holder.current!.dispatchEvent(new PointerEvent(event.type, event));
          return true;
        }}
      />
      {handles.length > 0 && blotter && (
        <ShapeHandles
          selection={selection}
          item={only!}
          handles={handles}
          blotter={blotter}
          page={document}
          join={tools.habits.join}
          view={view}
        />
      )}
      <SelectionBar
        layer={layer}
        selection={selection}
        page={document}
        view={view}
        side={barSide}
        size={blotter?.size ?? { width: 0, height: 0 }}
        {...given}
        picture={picture}
        framed={framed}
        onCrop={() => setCropping(true)}
        onType={(into) => {
          setTaken(undefined);
          onType(into);
        }}
        onLink={onLink}
        onStamp={onStamp}
        onMark={() => {
          onChoose(addSpot(core, document, 'mark', area, items, { mark: tools.settingsOf(mark).kind }));
          setTaken(undefined);
        }}
        onHeading={() => {
          addSpot(core, document, 'heading', area, items, { level: '1' });
          setTaken(undefined);
          say(t`It stands in the contents now, as you wrote it.`);
        }}
        onCopyLink={() =>
          copyText(addressOf({ kind: 'place', ...here, x: (area[0] + area[2]) / 2, y: (area[1] + area[3]) / 2 }))
        }
      />
    </div>
  );
}
