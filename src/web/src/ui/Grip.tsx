import type { ComponentProps } from 'react';

/** Where an arrow key leads, as a step to the right and down. */
export const arrowWays: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/**
 * What is dragged by pen, finger or mouse, and goes by arrow keys as well, ten steps at a time with Shift. A press leaves the focus where it is, so that keys stay
 * with what is dragged as a whole.
 */
export function Grip({
  label,
  onStep,
  className = '',
  ...rest
}: ComponentProps<'button'> & { label: string; onStep: (right: number, down: number) => void }) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      {...rest}
      className={`touch-none ${className}`}
      onMouseDown={(event) => event.preventDefault()}
      onKeyDown={(event) => {
        const way = arrowWays[event.key];
        if (!way) return;
        event.preventDefault();
        event.stopPropagation();
        const times = event.shiftKey ? 10 : 1;
        onStep(way[0] * times, way[1] * times);
      }}
    />
  );
}
