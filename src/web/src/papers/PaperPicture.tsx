import { useMemo } from 'react';
import { useWorkspace } from '../data/useWorkspace';
import { type Drawing, drawPaper } from '../model/drawing';
import { frozenPicturePath, frozenType, useOwnPaperSource } from '../data/ownPapers';
import { useAsset, usePictureAddress } from '../data/useAsset';

/** A paper, small: what stands for it where one chooses, and for pages of which there is no picture yet. */
export function PaperPicture({
  paper,
  width,
  height,
  space,
  className = '',
}: {
  paper: string;
  width: number;
  height?: number;
  space?: string;
  className?: string;
}) {
  const { core } = useWorkspace();
  const drawing = useMemo(() => drawPaper(core, paper), [core, paper]);
  const source = useOwnPaperSource(space, drawing.own);
  const file = useAsset(space, source);
  const isFrozen = file?.type === frozenType;
  const address = usePictureAddress(isFrozen ? undefined : file);
  const picture = isFrozen ? frozenPicturePath(space!, source!) : address;
  const [left, top, right, bottom] = drawing.sheet;
  const ratio = (bottom - top) / (right - left);
  const fits = height === undefined ? width : Math.min(width, height / ratio);
  return (
    <svg
      viewBox={`${left} ${top} ${right - left} ${bottom - top}`}
      width={fits}
      height={fits * ratio}
      className={`border border-base-300 ${className}`}
      aria-hidden="true"
    >
      <rect x={left} y={top} width={right - left} height={bottom - top} fill={drawing.ground} />
      {picture && (
        <image
          href={picture}
          x={left}
          y={top}
          width={right - left}
          height={bottom - top}
          preserveAspectRatio="xMidYMid meet"
        />
      )}
      <DrawingPieces drawing={drawing} least={((right - left) / fits) * 0.6} />
    </svg>
  );
}

/** A drawing's pieces inside an SVG; lines at least so wide, in the drawing's units. */
export function DrawingPieces({ drawing, least = 0 }: { drawing: Drawing; least?: number }) {
  return drawing.pieces.map((piece, i) =>
    piece.fill ? (
      <path key={i} d={piece.path} fill={piece.fill} />
    ) : piece.line ? (
      <path
        key={i}
        d={piece.path}
        fill="none"
        stroke={piece.line}
        strokeWidth={Math.max(least, piece.width!)}
        {...(piece.dash ? { strokeDasharray: piece.dash.join(' '), strokeLinecap: 'round' as const } : {})}
      />
    ) : null,
  );
}
