import type { View } from '../sheet/ink/view';
import type { Spotlight } from '../sync/lecterns';

/** The page dimmed but for where the spotlight falls. */
export function Dimmed({ spot, view }: { spot: Spotlight; view: View }) {
  const [x, y, radius] = [spot.x * view.scale + view.x, spot.y * view.scale + view.y, spot.radius * view.scale];
  return (
    <div
      aria-hidden="true"
      data-testid="spotlight"
      className="pointer-events-none absolute inset-0"
      style={{
        background: `radial-gradient(circle at ${x}px ${y}px, transparent ${radius}px, rgb(18 24 23 / 0.68) ${radius + 12}px)`,
      }}
    />
  );
}
