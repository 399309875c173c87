import { t } from '@lingui/core/macro';
import { type PointerEvent as ReactPointerEvent, useMemo, useState } from 'react';
import type { OpenDocument } from '../../sync/openDocument';
import { useWorkspace } from '../../data/useWorkspace';
import type { Blotter } from '../blotter/blotter';
import { readOutline } from '../ink/packet';
import { Grip } from '../../ui/Grip';
import type { View } from '../ink/view';
import type { Selection } from './useSelection';

export interface Handle {
  x: number;
  y: number;
  role: 'end' | 'corner' | 'side' | 'radius' | 'bend';
}

const roleNames: Record<Handle['role'], string> = {
  end: t`End`,
  corner: t`Corner`,
  side: t`Side`,
  radius: t`Radius`,
  bend: t`Bend`,
};

/** The handles that an item has of its own; none for ink, and for what was squeezed into no shape of a kind. */
export function useShapeHandles(page: OpenDocument, item: string | undefined): Handle[] {
  const { core } = useWorkspace();
  const version = page.getVersion();
  return useMemo(
    () => (item === undefined ? [] : (JSON.parse(core.ShapeBridge.Handles(page.handle, item)) as Handle[])),
    [core, page, item, version],
  );
}

/** An arrow key moves a handle so far, 0.01 mm. */
const keyStep = 100;

/** The handles of a drawn shape: its ends, corners, sides, radius. */
export function ShapeHandles({
  selection,
  item,
  handles,
  blotter,
  page,
  join,
  view,
}: {
  selection: Selection;
  /** The shape. */
  item: string;
  handles: Handle[];
  blotter: Blotter;
  page: OpenDocument;
  join: number;
  view: View;
}) {
  const { core } = useWorkspace();
  const [moved, setMoved] = useState<{ index: number; x: number; y: number }>();
  const { about } = selection;
  const pen = [Number(about.pen ?? 1), Number(about.width ?? 40), 0xff, Number(about.line ?? 0), 0, 0, 0];

  const move = (index: number) => (event: ReactPointerEvent) => {
    if (!(event.target as Element).hasPointerCapture(event.pointerId)) return;
    const { x, y } = blotter.view.onPage(event.clientX, event.clientY);
    const shape = core.ShapeBridge.Drag(page.handle, item, index, x, y, join);
    setMoved({ index, x, y });
    blotter.previewPath(readOutline(core.ShapeBridge.Outline(shape, pen)), `#${about.colour ?? '22302eff'}`);
    blotter.dry.lift(new Set([item]));
  };
  const end = () => {
    blotter.previewPath(undefined, '');
    blotter.dry.lift(new Set());
    if (moved)
      page.perform((handle, now) => core.ShapeBridge.Drop(handle, item, moved.index, moved.x, moved.y, join, now));
    setMoved(undefined);
  };
  const step = (index: number, handle: Handle, right: number, down: number) => {
    const [x, y] = [handle.x + right * keyStep, handle.y + down * keyStep];
    page.perform((handled, now) => core.ShapeBridge.Drop(handled, item, index, x, y, join, now));
  };
  return handles.map((handle, index) => {
    const at = moved?.index === index ? moved : handle;
    return (
      <Grip
        key={index}
        label={roleNames[handle.role]}
        data-testid="shape-handle"
        data-role={handle.role}
        onStep={(right, down) => step(index, handle, right, down)}
        className="pointer-events-auto absolute grid size-11 -translate-x-1/2 -translate-y-1/2 cursor-crosshair place-items-center"
        style={{ left: at.x * view.scale + view.x, top: at.y * view.scale + view.y }}
        onPointerDown={(event) => {
          event.stopPropagation();
          (event.currentTarget as Element).setPointerCapture(event.pointerId);
        }}
        onPointerMove={move(index)}
        onPointerUp={end}
        onPointerCancel={end}
      >
        <span
          className={`size-3 border-[1.5px] border-[#b4533c] bg-paper ${handle.role === 'side' ? 'rounded-sm' : 'rounded-full'}`}
        />
      </Grip>
    );
  });
}
