import { useEffect } from 'react';
import { usePersonal } from '../data/usePersonal';
import { offers } from '../sheet/tools/offers';
import type { Tools } from '../sheet/tools/tools';
import { Dialog } from '../ui/Dialog';
import { openKeys, useKeysOpen } from '../ui/keysSheet';
import { Switch } from '../ui/Segments';

interface KeyLine {
  keys: string;
  does: string;
}

interface KeyPart {
  title: string;
  lines: KeyLine[];
}

const everywhere: KeyPart = {
  title: 'Everywhere',
  lines: [
    { keys: '?', does: 'This sheet' },
    { keys: 'Alt J', does: 'Jot: an empty page at once' },
    { keys: '[  ]', does: 'The notebook open before, or next' },
    { keys: 'Ctrl Z', does: 'Take back what was done last' },
    { keys: 'Escape', does: 'Close, let go, or leave' },
  ],
};
const page: KeyPart = {
  title: 'On a page',
  lines: [
    { keys: '1 – 9', does: 'The pens' },
    { keys: 'X', does: 'The pen before' },
    { keys: 'Shift M', does: 'Mark what was just written' },
    { keys: 'R', does: 'Read, or write' },
    { keys: 'F', does: 'Full view' },
    { keys: '+  −  0', does: 'Larger, smaller, the whole width' },
    { keys: 'Ctrl Z   Ctrl Y', does: 'Undo, redo' },
    { keys: 'Ctrl A   C   X   V   D', does: 'Select all, copy, cut, lay down, double' },
    { keys: 'Arrows, Shift', does: 'Nudge what is selected, by ten' },
    { keys: 'Space held', does: 'Hold the sheet' },
  ],
};
const turning: KeyPart = {
  title: 'Turning pages',
  lines: [
    { keys: 'Page down, →, Space', does: 'The next page' },
    { keys: 'Page up, ←, Shift Space', does: 'The page before' },
    { keys: 'Home   End', does: 'The first, the last' },
    { keys: 'Ctrl Page down', does: 'A new page after the last' },
  ],
};
const lists: KeyPart = {
  title: 'In the library, the overview and the contents',
  lines: [
    { keys: 'Arrows', does: 'From thing to thing; in a tree → unfolds and ← folds' },
    { keys: 'Space', does: 'Choose' },
    { keys: 'F2', does: 'Rename' },
    { keys: 'M', does: 'Move' },
    { keys: 'T', does: 'Tag' },
    { keys: 'Delete', does: 'Into the bin' },
    { keys: 'Alt Arrows', does: 'One place on' },
  ],
};

/** What has a name of its own on the sheet needs no more of the hand than its usual settings. */
const nameOf = (offer: (typeof offers)[number]): string =>
  offer.title ?? offer.words({ settingsOf: (tool: { first: object }) => tool.first } as unknown as Tools);

/** The sheet of keys, by “?”. */
export function KeysSheet() {
  const isOpen = useKeysOpen();
  const personal = usePersonal();
  const letters = personal?.habits.letterKeys ?? true;
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key !== '?' || !letters || event.defaultPrevented || event.ctrlKey || event.metaKey) return;
      if ((event.target as Element).closest('input, textarea, select, [contenteditable], dialog')) return;
      event.preventDefault();
      openKeys(true);
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  }, [letters]);
  if (!isOpen) return null;
  const tools: KeyPart = {
    title: 'Tools',
    lines: offers.flatMap((offer) => (offer.key ? [{ keys: offer.key.toUpperCase(), does: nameOf(offer) }] : [])),
  };
  return (
    <Dialog title="Keys" wide onClose={() => openKeys(false)}>
      <div data-testid="keys-sheet">
        <div className="columns-3 gap-8 max-lg:columns-2 max-sm:columns-1">
          {[everywhere, turning, page, tools, lists].map((part) => (
            <section key={part.title} aria-label={part.title} className="mb-5 break-inside-avoid">
              <h3 className="mb-1 text-[16px]">{part.title}</h3>
              <dl>
                {part.lines.map(({ keys, does }) => (
                  <div key={does} className="flex items-baseline gap-3 border-b border-base-300 py-1">
                    <dt className="w-[42%] shrink-0 font-semibold">{keys}</dt>
                    <dd className="min-w-0">{does}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
        </div>
        <Switch
          label="Single letters and signs are keys"
          on={letters}
          testId="letter-keys"
          onChange={(letterKeys) => personal?.setHabits({ letterKeys })}
        />
      </div>
    </Dialog>
  );
}
