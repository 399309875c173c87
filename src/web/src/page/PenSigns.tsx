import { useEffect, useState } from 'react';
import type { Writer } from '../data/usePeople';
import { signOf } from '../model/colours';
import type { Blotter } from '../sheet/blotter/blotter';
import type { PenSign } from '../sheet/ink/othersInk';
import type { View } from '../sheet/ink/view';

/** Others' names at the tips of their pens. They move with every frame while somebody writes, and nothing else of the sheet is rendered for it. */
export function PenSigns({ blotter, view, people }: { blotter: Blotter | undefined; view: View; people: Writer[] }) {
  const [signs, setSigns] = useState<PenSign[]>([]);
  useEffect(() => {
    if (!blotter) return undefined;
    const { others } = blotter;
    others.onSigns = setSigns;
    return () => {
      others.onSigns = () => {};
      setSigns([]);
    };
  }, [blotter]);
  return signs.map((sign) => {
    const person = people.find((one) => one.id === sign.person);
    if (!person) return null;
    return (
      <div
        key={sign.connection}
        data-testid="pen-sign"
        aria-hidden="true"
        className="pointer-events-none absolute start-0 top-0"
        style={{ transform: `translate(${sign.x * view.scale + view.x}px, ${sign.y * view.scale + view.y}px)` }}
      >
        <svg width="16" height="26" className="absolute -top-[26px] start-0" aria-hidden="true">
          <path d="M1 25L13 2" stroke="currentColor" strokeWidth="2" />
        </svg>
        <span
          className="absolute -top-11 start-2 rounded-sm px-2 py-0.5 text-xs text-white"
          style={{ background: signOf[person.colour] ?? signOf.spruce }}
        >
          {person.name.split(' ')[0]}
        </span>
      </div>
    );
  });
}
