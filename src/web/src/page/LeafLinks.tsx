import type { LeafLink } from '../data/leaves';
import type { View } from '../sheet/ink/view';

/** The links of slides and other files under the ink, to be followed while one reads. */
export function LeafLinks({ links, view: { scale, x, y } }: { links: readonly LeafLink[]; view: View }) {
  if (links.length === 0) return null;
  return (
    <div className="pointer-events-none absolute inset-0 overflow-clip">
      {links.map(({ key, address, area: [left, top, right, bottom] }) => (
        <a
          key={key}
          href={address}
          target="_blank"
          rel="noopener noreferrer"
          title={address}
          aria-label={address}
          data-testid="leaf-link"
          className="pointer-events-auto absolute rounded-sm hover:outline-2 hover:outline-primary/50"
          style={{
            left: left * scale + x,
            top: top * scale + y,
            width: (right - left) * scale,
            height: (bottom - top) * scale,
          }}
        />
      ))}
    </div>
  );
}
