import { useEffect, useRef } from 'react';
import { useWorkspace } from '../data/useWorkspace';
import { trueScale } from '../sheet/ink/view';
import { pixelRatio, sizeCanvas } from '../sheet/ink/canvases';
import { paintItem, readPacket } from '../sheet/ink/packet';
import type { OpenDocument } from '../sync/openDocument';

const mostWidth = 274;
/** Around the ink, 0.01 mm. */
const around = 100;

/** The ink of an answer, as large as it was written, where there is room for that. */
export function AnswerInk({ page, spot, answer }: { page: OpenDocument; spot: string; answer: string }) {
  const { core } = useWorkspace();
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const items = readPacket(core.AnswerBridge.Ink(page.handle, spot, answer));
    if (items.length === 0) return;
    const left = Math.min(...items.map(({ box }) => box[0])) - around;
    const top = Math.min(...items.map(({ box }) => box[1])) - around;
    const wide = Math.max(...items.map(({ box }) => box[2])) + around - left;
    const high = Math.max(...items.map(({ box }) => box[3])) + around - top;
    const scale = Math.min(trueScale(), mostWidth / wide);
    const { current } = canvas;
    sizeCanvas(current!, wide * scale, high * scale);
    Object.assign(current!.style, { width: `${wide * scale}px`, height: `${high * scale}px` });
    const context = current!.getContext('2d')!;
    const unit = scale * pixelRatio();
    context.setTransform(unit, 0, 0, unit, -left * unit, -top * unit);
    for (const item of items) paintItem(context, item);
  }, [core, page.handle, spot, answer]);
  return <canvas ref={canvas} aria-hidden="true" data-testid="answer-ink" className="mt-1 block rounded bg-paper" />;
}
