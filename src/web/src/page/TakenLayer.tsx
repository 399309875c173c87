import { t } from '@lingui/core/macro';
import { type RefObject, useEffect, useState } from 'react';
import { addSpot } from '../data/spots';
import { useWorkspace } from '../data/useWorkspace';
import { addressOf } from '../model/target';
import type { Blotter } from '../sheet/blotter/blotter';
import { itemKinds, type Taken } from '../sheet/hand/things';
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
  onEdge: (by: number, taken: Taken) => void;
  /** Types into a thing. */
  onType: (item: string) => void;
  /** What is done with it on the person's own sheet: to give it to the page, where one may write there. Left out on the page itself. */
  onGive?: (() => void) | undefined;
}

/** What was taken, framed, with its handles and the bar of what can be done with it. */
export function TakenLayer({
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
  onEdge,
  onType,
  ...given
}: TakenLayerProps) {
  const { core } = useWorkspace();
  const [cropping, setCropping] = useState(false);
  const { taken, about } = selection;
  const { items, area } = taken;
  const only = items.length === 1 && about.kinds === itemKinds.shape && !about.locked ? items[0] : undefined;
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
          handles={handles}
          blotter={blotter}
          page={document}
          join={tools.habits.join}
          view={view}
        />
      )}
      <SelectionBar
        selection={selection}
        page={document}
        view={view}
        side={barSide}
        size={blotter?.size ?? { width: 0, height: 0 }}
        {...given}
        picture={picture}
        onCrop={() => setCropping(true)}
        onType={(item) => {
          setTaken(undefined);
          onType(item);
        }}
        onLink={onLink}
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
