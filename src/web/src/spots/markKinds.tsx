import { t } from '@lingui/core/macro';
import {
  ArrowsClockwiseIcon,
  ChatTextIcon,
  CheckIcon,
  EyeIcon,
  type Icon,
  KeyIcon,
  QuestionMarkIcon,
} from '@phosphor-icons/react';
import { nodeIcons } from '../ui/NodeIcon';
import type { Library } from '../data/Library';
import { useLibraries } from '../data/useLibrary';

/** A kind of mark: those that are always there, and a library's own. */
export interface MarkKind {
  id: string;
  words: string;
  icon: Icon;
  /** A name of the palette. */
  colour: string;
  /** Whether it waits to be ticked off. */
  opens: boolean;
}

export const shippedKinds: MarkKind[] = [
  { id: 'todo', words: t`To do`, icon: CheckIcon, colour: 'lichen', opens: true },
  { id: 'ask', words: t`Ask`, icon: QuestionMarkIcon, colour: 'madder', opens: true },
  { id: 'lookup', words: t`Look up`, icon: EyeIcon, colour: 'sky', opens: true },
  { id: 'key', words: t`Key point`, icon: KeyIcon, colour: 'gold', opens: false },
];

export function ownKinds(library: Library): MarkKind[] {
  return [...library.nodes.values()]
    .filter((node) => node.kind === 'markKind' && !node.inBin)
    .map((node) => ({
      id: node.id,
      words: node.name,
      icon: nodeIcons[node.icon] ?? ArrowsClockwiseIcon,
      colour: node.colour || 'plum',
      opens: true,
    }));
}

export function kindsOf(library: Library | undefined): MarkKind[] {
  return [...shippedKinds, ...(library ? ownKinds(library) : [])];
}

/** All kinds of all libraries, by id. */
export function useMarkKinds(): Map<string, MarkKind> {
  const libraries = useLibraries();
  return new Map([...shippedKinds, ...[...libraries.values()].flatMap(ownKinds)].map((kind) => [kind.id, kind]));
}

const ringOf: Record<string, string> = {
  spruce: 'border-spruce text-spruce',
  madder: 'border-madder text-madder',
  sky: 'border-sky text-sky',
  gold: 'border-[#96671a] text-[#96671a]',
  plum: 'border-plum text-plum',
  lichen: 'border-[#5f6c35] text-[#5f6c35]',
};
const fullOf: Record<string, string> = {
  spruce: 'bg-spruce',
  madder: 'bg-madder',
  sky: 'bg-sky',
  gold: 'bg-[#96671a]',
  plum: 'bg-plum',
  lichen: 'bg-[#5f6c35]',
};

/** The sign of a mark: a full disc on the page, a ring in lists; ticked off it is pale. */
export function MarkSign({
  kind,
  size = 26,
  full = false,
  done = false,
  answered = false,
}: {
  kind: MarkKind | undefined;
  size?: number;
  full?: boolean;
  done?: boolean;
  /** Somebody said something to it: a small sign at its side. */
  answered?: boolean;
}) {
  const Shown = done ? CheckIcon : (kind?.icon ?? QuestionMarkIcon);
  const colour = kind?.colour ?? 'madder';
  return (
    <span
      style={{ width: size, height: size }}
      className={`relative inline-grid shrink-0 place-items-center rounded-full ${done ? 'border border-quiet bg-paper text-[#625f54]' : full ? `${fullOf[colour]} text-white` : `border-[1.5px] bg-paper ${ringOf[colour]}`}`}
      aria-hidden="true"
    >
      <Shown size={size * 0.58} weight="bold" />
      {answered && (
        <span className="absolute -end-1.5 -top-1 grid size-4 place-items-center rounded-full border border-paper bg-spruce text-white">
          <ChatTextIcon size={10} weight="fill" />
        </span>
      )}
    </span>
  );
}
