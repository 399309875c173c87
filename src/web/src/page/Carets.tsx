import { useCallback, useEffect, useState } from 'react';
import type { Writer } from '../data/usePeople';
import { useWorkspace } from '../data/useWorkspace';
import { inkOf } from '../model/colours';
import type { View } from '../sheet/ink/view';
import type { OpenDocument } from '../sync/openDocument';
import { NameSign } from './NameSign';
import { useHeard } from './useHeard';

interface Caret {
  person: string;
  item: string;
  from: string;
  to: string;
}

/** A caret that is not told again for so long is no more, ms. */
const staysFor = 9_000;

/** Where others on the page type, with their name, and what they have selected in a text. */
export function Carets({ document, view, people }: { document: OpenDocument; view: View; people: Writer[] }) {
  const { core } = useWorkspace();
  const carets = useHeard<Caret>(
    staysFor,
    useCallback(
      (tell) => {
        document.onCaret = (person, connection, item, from, to) =>
          tell(connection, item ? { person, item, from, to } : undefined);
        return () => (document.onCaret = undefined);
      },
      [document],
    ),
  );
  const [, setVersion] = useState(0);
  // A caret goes along with the letters that it stands at.
  const any = carets.size > 0;
  useEffect(() => (any ? document.subscribe(() => setVersion((version) => version + 1)) : undefined), [document, any]);
  if (!any || document.isHeld) return null;
  return (
    <div aria-hidden="true" className="pointer-events-none absolute inset-0 overflow-hidden">
      {[...carets].map(([connection, { person, item, from, to }]) => {
        const who = people.find((one) => one.id === person);
        const places = who ? core.TextBridge.CaretOf(document.handle, item, from, to) : [];
        if (!who || places.length < 4) return null;
        const on = places.map((place, i) => place * view.scale + (i % 2 === 0 ? view.x : view.y));
        const colour = inkOf[who.colour] ?? inkOf.spruce;
        const lines = Array.from({ length: (on.length - 4) / 8 }, (_, i) => on.slice(4 + 8 * i, 12 + 8 * i));
        return (
          <div key={connection} data-testid="other-caret" data-name={who.name}>
            <svg className="absolute inset-0 size-full">
              {lines.map((corners, i) => (
                <polygon key={i} points={corners.join(' ')} fill={colour} fillOpacity="0.18" />
              ))}
              <line x1={on[0]} y1={on[1]} x2={on[2]} y2={on[3]} stroke={colour} strokeWidth="2" />
            </svg>
            <NameSign person={who} at={{ left: on[0]! - 1, top: on[1]! - 22 }} />
          </div>
        );
      })}
    </div>
  );
}
