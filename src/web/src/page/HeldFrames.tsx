import { useEffect, useState } from 'react';
import type { Writer } from '../data/usePeople';
import { inkOf } from '../model/colours';
import type { View } from '../sheet/ink/view';
import type { OpenDocument } from '../sync/openDocument';
import { readPlaces } from '../sync/places';
import { NameSign } from './NameSign';

interface Held {
  person: string;
  /** Corners as x and y, one after the other, 0.01 mm. */
  frame: number[];
  at: number;
}

/** What is not told again for so long is held no more: a connection may have broken. */
const staysFor = 6_000;

/** What others on the page have selected, or drag at this moment: a dashed frame with their name. */
export function HeldFrames({ document, view, people }: { document: OpenDocument; view: View; people: Writer[] }) {
  const [held, setHeld] = useState<ReadonlyMap<string, Held>>(new Map());
  useEffect(() => {
    document.onHeld = (person, connection, bytes) => {
      const frame = readPlaces(bytes);
      setHeld((before) => {
        const after = new Map(before);
        if (frame.length === 8) after.set(connection, { person, frame, at: Date.now() });
        else after.delete(connection);
        return after;
      });
    };
    const sweep = setInterval(
      () =>
        setHeld((before) => {
          const left = [...before].filter(([, one]) => Date.now() - one.at < staysFor);
          return left.length === before.size ? before : new Map(left);
        }),
      1_000,
    );
    return () => {
      document.onHeld = undefined;
      clearInterval(sweep);
      setHeld(new Map());
    };
  }, [document]);
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
