import { useId } from 'react';
import type { Core } from '../../core/runtime';
import { grainAddress } from '../ink/grain';
import { outlineToSvg } from '../ink/packet';
import { dimGround, tintOn } from '../ink/tint';
import { type Pen, penNumbers, rgbaOf } from '../../model/pens';

/** Wider pens than this are drawn narrower, so that the stroke still is one. */
const mostShown = 190;

/** A stroke of a pen, drawn by Core's own outline, at about three times its true width so that pens can be told apart. */
export function PenStroke({
  core,
  pen,
  onPaper,
  wide,
  small,
}: {
  core: Core;
  pen: Pen;
  onPaper: boolean;
  wide?: boolean;
  small?: boolean;
}) {
  const { path, grain } = shown(core, pen);
  const pattern = useId();
  const colour =
    !onPaper && document.documentElement.dataset.theme === 'quill-night'
      ? tintOn(core, dimGround, pen.colour)
      : pen.colour;
  const tile = grainAddress(grain, colour);
  return (
    <svg
      viewBox="-110 -250 1460 500"
      className={wide ? 'h-16 w-full' : small ? 'h-9 w-9' : 'h-9 w-[54px]'}
      aria-hidden="true"
    >
      {tile && (
        <pattern id={pattern} patternUnits="userSpaceOnUse" width="1024" height="1024">
          <image href={tile} width="1024" height="1024" />
        </pattern>
      )}
      <path d={path} fill={tile ? `url(#${pattern})` : colour} fillOpacity={(rgbaOf(pen) % 256) / 255} />
    </svg>
  );
}

interface Shown {
  /** SVG path data. */
  path: string;
  grain: number;
}

/** The strokes drawn so far by the numbers of their pens: the tray is shown anew with every page, and its pens stay the same. */
const drawn = new Map<string, Shown>();
const mostDrawn = 200;

function shown({ PenBridge }: Core, pen: Pen): Shown {
  const [kind, width, , ...rest] = penNumbers(pen) as [number, number, number, ...number[]];
  const key = [kind, width, ...rest].join();
  let stroke = drawn.get(key);
  if (!stroke) {
    const black = 0xff;
    stroke = {
      path: outlineToSvg(PenBridge.OutlineOf([kind, Math.min(width, mostShown), black, ...rest], wave)),
      grain: PenBridge.GrainOf([kind, width, black, ...rest], wave),
    };
    if (drawn.size >= mostDrawn) drawn.clear();
    drawn.set(key, stroke);
  }
  return stroke;
}

/** A wave whose pressure swells and whose speed changes, with the pen leaning a little. */
const wave = Int32Array.from(
  Array.from({ length: 48 }, (_, i) => {
    const t = i / 47;
    return [
      t * 1240,
      -Math.sin(t * Math.PI * 3.2 - 0.5) * 130 * (1 - t * 0.2),
      160 + 760 * Math.abs(Math.sin(t * Math.PI * 1.6 + 0.3)),
      i * (9 + 4 * Math.sin(t * 7)),
      18,
      -10,
    ];
  })
    .flat()
    .map(Math.round),
);
