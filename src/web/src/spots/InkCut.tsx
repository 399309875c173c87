import { useEffect, useRef } from 'react';
import { paintSheet, sheetPaperOf } from '../sheet/ink/sheetPaper';
import { paintItem, readPacket } from '../sheet/ink/packet';
import { type Area, drawPaper } from '../model/drawing';
import { useDocument, useWorkspace } from '../data/useWorkspace';

/** A part of a page as it is at this moment, cut out of the page's own ink. Of a spot named as the only one, just the ink it was put on, without the paper. Opens the page, so it is for few at a time. */
export function InkCut({
  space,
  page,
  paper,
  area,
  width,
  height,
  only,
}: {
  space: string;
  page: string;
  paper: string;
  area: Area;
  width: number;
  height: number;
  only?: string;
}) {
  const { core } = useWorkspace();
  const document = useDocument(space, 'page', page);
  const canvas = useRef<HTMLCanvasElement>(null);
  const version = document?.getVersion();
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !document) return;
    const ratio = Math.min(devicePixelRatio, 2);
    const scale = (width * ratio) / (area[2] - area[0]);
    context.resetTransform();
    context.clearRect(0, 0, width * ratio, height * ratio);
    context.setTransform(scale, 0, 0, scale, -area[0] * scale, -area[1] * scale);
    if (!only) paintSheet(context, sheetPaperOf(drawPaper(core, paper)), 1 / scale);
    for (const item of readPacket(core.SpotBridge.Cut(document.handle, area.map(Math.round), only ?? '')))
      paintItem(context, item);
  }, [core, document, version, paper, width, height, only, area[0], area[1], area[2], area[3]]);
  const ratio = Math.min(devicePixelRatio, 2);
  return (
    <canvas
      ref={canvas}
      width={width * ratio}
      height={height * ratio}
      style={{ width, height }}
      aria-hidden="true"
      className="block"
    />
  );
}
