import type { Writer } from '../data/usePeople';
import { signOf } from '../model/colours';

/** Somebody's name in their colour, where they are at work on the sheet. */
export function NameSign({
  person,
  className,
  at,
}: {
  person: Writer;
  className?: string;
  at?: { left: number; top: number };
}) {
  return (
    <span
      className={`absolute rounded-sm px-2 py-0.5 text-xs text-white ${className ?? ''}`}
      style={{ ...at, background: signOf[person.colour] ?? signOf.spruce }}
    >
      {person.name.split(' ')[0]}
    </span>
  );
}
