import { t } from '@lingui/core/macro';
import { type PointerEvent, useState } from 'react';
import { useWorkspace } from '../data/useWorkspace';
import type { Area } from '../model/drawing';
import { toScreen, type View } from '../sheet/ink/view';
import type { OpenDocument } from '../sync/openDocument';

export interface Part {
  items: string[];
  area: Area;
}

interface ChoosePartProps {
  page: OpenDocument;
  view: View;
  part: Part | undefined;
  onPart: (part: Part | undefined) => void;
}

/** A frame that is drawn over a part of the page as it was; what lies mostly in it is chosen. */
export function ChoosePart({ page, view, part, onPart }: ChoosePartProps) {
  const { HistoryBridge } = useWorkspace().core;
  const [frame, setFrame] = useState<{ from: [number, number]; to: [number, number] }>();
  const place = (event: PointerEvent): [number, number] => {
    const { left, top } = event.currentTarget.getBoundingClientRect();
    return [event.clientX - left, event.clientY - top];
  };
  // The last moves may not be drawn yet when the hand lifts: where it lifted counts.
  const choose = (event: PointerEvent) => {
    setFrame(undefined);
    if (!frame) return;
    const [x1, y1] = onPage(frame.from, view);
    const [x2, y2] = onPage(place(event), view);
    const { items, area } = JSON.parse(HistoryBridge.Choose(page.handle, [x1, y1, x2, y1, x2, y2, x1, y2])) as {
      items: string[];
      area?: Area;
    };
    onPart(area && { items, area });
  };
  return (
    <>
      <div
        aria-label={t`Draw a frame round what you want back.`}
        role="application"
        data-testid="history-choose"
        className="absolute inset-0 cursor-crosshair touch-none select-none"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          setFrame({ from: place(event), to: place(event) });
        }}
        onPointerMove={(event) => frame && setFrame({ ...frame, to: place(event) })}
        onPointerUp={choose}
        onPointerCancel={() => setFrame(undefined)}
      />
      {frame && (
        <div
          aria-hidden="true"
          className="pointer-events-none absolute border border-dashed border-primary bg-primary/5"
          style={{
            left: Math.min(frame.from[0], frame.to[0]),
            top: Math.min(frame.from[1], frame.to[1]),
            width: Math.abs(frame.to[0] - frame.from[0]),
            height: Math.abs(frame.to[1] - frame.from[1]),
          }}
        />
      )}
      {part && (
        <div
          aria-hidden="true"
          data-testid="history-part"
          className="pointer-events-none absolute border-2 border-primary"
          style={toScreen(part.area, view)}
        />
      )}
    </>
  );
}

function onPage([x, y]: [number, number], view: View): [number, number] {
  return [(x - view.x) / view.scale, (y - view.y) / view.scale];
}
