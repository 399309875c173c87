import { useEffect, useRef } from 'react';
import { bringStamp, type StampOffer } from '../../data/stamps';
import { useWorkspace } from '../../data/useWorkspace';
import type { Area } from '../../model/drawing';
import { onPictures } from '../ink/bitmaps';
import { paintItem, readPacket } from '../ink/packet';

/** Pixels around what is drawn. */
const room = 4;

/** What a stamp looks like, in so many pixels either way. */
export function StampFace({ stamp, size }: { stamp: StampOffer; size: number }) {
  const workspace = useWorkspace();
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    let gone = false;
    const draw = async () => {
      const piece = await bringStamp(workspace, stamp).catch(() => undefined);
      const context = canvas.current?.getContext('2d');
      if (gone || !piece || !context) return;
      const { StampBridge, HandBridge } = workspace.core;
      const area = HandBridge.BoundsOfPiece(piece.bytes) as unknown as Area;
      const dots = size * devicePixelRatio;
      const [left, top, right, bottom] = area;
      const scale = (dots - 2 * room) / Math.max(right - left, bottom - top, 1);
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, dots, dots);
      context.setTransform(
        scale,
        0,
        0,
        scale,
        dots / 2 - ((left + right) / 2) * scale,
        dots / 2 - ((top + bottom) / 2) * scale,
      );
      for (const item of readPacket(StampBridge.Face(piece.bytes))) paintItem(context, item);
    };
    void draw();
    const stop = onPictures(() => void draw());
    return () => {
      gone = true;
      stop();
    };
  }, [workspace, stamp.key, stamp.kept?.asset, size]);
  return (
    <canvas
      ref={canvas}
      width={size * devicePixelRatio}
      height={size * devicePixelRatio}
      style={{ width: size, height: size }}
      aria-hidden="true"
    />
  );
}
