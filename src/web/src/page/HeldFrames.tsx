import { useCallback } from 'react';
import type { Writer } from '../data/usePeople';
import { inkOf } from '../model/colours';
import type { View } from '../sheet/ink/view';
import type { OpenDocument } from '../sync/openDocument';
import { readPlaces } from '../sync/places';
import { NameSign } from './NameSign';
import { useHeard } from './useHeard';

interface Held {
  person: string;
  /** Corners as x and y, one after the other, 0.01 mm. */
  frame: number[];
}

/** What is not told again for so long is held no more, ms. */
const staysFor = 6_000;

/** What others on the page have selected, or drag at this moment: a dashed frame with their name. */
export function HeldFrames({ document, view, people }: { document: OpenDocument; view: View; people: Writer[] }) {
  const held = useHeard<Held>(
    staysFor,
    useCallback(
      (tell) => {
        document.onHeld = (person, connection, bytes) => {
          const frame = readPlaces(bytes);
          tell(connection, frame.length === 8 ? { person, frame } : undefined);
        };
        return () => (document.onHeld = undefined);
      },
      [document],
    ),
  );
  if (held.size === 0) return null;
  return (
    <div aria-hidden="true" className="pointer-events-none absolute inset-0 overflow-hidden">
      {[...held].map(([connection, { person, frame }]) => {
        const who = people.find((one) => one.id === person);
        if (!who) return null;
        const on = frame.map((place, i) => place * view.scale + (i % 2 === 0 ? view.x : view.y));
        return (
          <div key={connection} data-testid="held-frame" data-frame={frame.join(' ')}>
            <svg className="absolute inset-0 size-full">
              <polygon
                points={on.join(' ')}
                fill="none"
                stroke={inkOf[who.colour] ?? inkOf.spruce}
                strokeWidth="1.5"
                strokeDasharray="6 4"
              />
            </svg>
            <NameSign person={who} at={{ left: on[0]!, top: on[1]! - 24 }} />
          </div>
        );
      })}
    </div>
  );
}
