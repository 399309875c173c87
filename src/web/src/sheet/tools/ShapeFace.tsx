import type { ShapeChoice } from '../hand/shapeHand';

const star = Array.from({ length: 10 }, (_, i) => {
  const angle = (i * Math.PI) / 5 - Math.PI / 2;
  const radius = i % 2 === 0 ? 10 : 4;
  return `${(12 + radius * Math.cos(angle)).toFixed(1)} ${(12 + radius * Math.sin(angle)).toFixed(1)}`;
}).join('L');

const paths: Record<ShapeChoice, string> = {
  free: 'M4 17C7 4 12 5 11 11S15 20 20 6',
  line: 'M4 20L20 4',
  arrow: 'M4 20L20 4M20 4L12 5.5M20 4L18.5 12',
  doubleArrow: 'M4 20L20 4M20 4L13 5.5M20 4L18.5 11M4 20L5.5 13M4 20L11 18.5',
  circle: 'M21 12A9 9 0 1 1 3 12A9 9 0 1 1 21 12Z',
  ellipse: 'M22 12A10 6 0 1 1 2 12A10 6 0 1 1 22 12Z',
  triangle: 'M12 4L21 20L3 20Z',
  square: 'M4.5 4.5L19.5 4.5L19.5 19.5L4.5 19.5Z',
  rectangle: 'M2.5 7L21.5 7L21.5 17L2.5 17Z',
  rhombus: 'M12 3L20 12L12 21L4 12Z',
  parallelogram: 'M7 6.5L22 6.5L17 17.5L2 17.5Z',
  trapezoid: 'M7.5 6L16.5 6L21.5 18L2.5 18Z',
  polygon: 'M12 3L19.8 7.5L19.8 16.5L12 21L4.2 16.5L4.2 7.5Z',
  star: `M${star}Z`,
  arc: 'M3 18A9.5 9.5 0 0 1 21 18',
  connector: 'M2 4H8V9H2ZM16 15H22V20H16ZM5 9V17.5H16M16 17.5L13.2 15.6M16 17.5L13.2 19.4',
  wave: 'M2 12C4 5 6 5 8 12S12 19 14 12S18 5 22 12',
};

/** A shape as a line, for its button. */
export function ShapeFace({ kind }: { kind: ShapeChoice }) {
  return (
    <svg
      viewBox="0 0 24 24"
      className="size-6"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.3"
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden="true"
    >
      <path d={paths[kind]} />
    </svg>
  );
}
