import { useEffect, useState } from 'react';
import type { Writer } from '../data/usePeople';
import type { Blotter } from '../sheet/blotter/blotter';
import type { PenSign } from '../sheet/ink/othersInk';
import type { View } from '../sheet/ink/view';
import { NameSign } from './NameSign';

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
        <NameSign person={person} className="start-2 -top-11" />
      </div>
    );
  });
}
