import type { ReactNode } from 'react';
import type { Tag } from '../model/items';
import { fillOf } from '../model/colours';

/** A tag as a small label with its colour's dot. */
export function TagChip({ tag, children }: { tag: Tag; children?: ReactNode }) {
  return (
    <span
      className="inline-flex max-w-56 items-center gap-1.5 rounded-sm bg-base-200 px-2 py-0.5 text-[13px]"
      title={tag.path}
    >
      <span className={`size-2 shrink-0 rounded-full ${fillOf[tag.colour] ?? 'bg-quiet'}`} />
      <span className="truncate">{tag.path}</span>
      {children}
    </span>
  );
}
