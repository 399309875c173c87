import type { LeafLink } from '../data/leaves';
import { toScreen, type View } from '../sheet/ink/view';

/** The links of slides and other files under the ink, to be followed while one reads. */
export function LeafLinks({ links, view }: { links: readonly LeafLink[]; view: View }) {
  if (links.length === 0) return null;
  return (
    <div className="pointer-events-none absolute inset-0 overflow-clip">
      {links.map(({ key, address, area }) => (
        <a
          key={key}
          href={address}
          target="_blank"
          rel="noopener noreferrer"
          title={address}
          aria-label={address}
          data-testid="leaf-link"
          className="pointer-events-auto absolute rounded-sm hover:outline-2 hover:outline-primary/50"
          style={toScreen(area, view)}
        />
      ))}
    </div>
  );
}
