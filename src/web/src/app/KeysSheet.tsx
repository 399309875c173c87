import { useLetterKeys, usePersonal } from '../data/usePersonal';
import { offers } from '../sheet/tools/offers';
import { Dialog } from '../ui/Dialog';
import { openKeys } from '../ui/keysSheet';
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
  title: 'In lists and trees',
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

/** All that goes by keys. */
export function KeysSheet() {
  const personal = usePersonal();
  const letters = useLetterKeys();
  const tools: KeyPart = {
    title: 'Tools',
    lines: offers.flatMap((offer) => (offer.key ? [{ keys: offer.key.toUpperCase(), does: offer.title }] : [])),
  };
  return (
    <Dialog title="Keys" wide onClose={() => openKeys(false)}>
      <div data-testid="keys-sheet">
        <Switch
          label="Single letters and signs are keys"
          on={letters}
          testId="letter-keys"
          onChange={(letterKeys) => personal?.setHabits({ letterKeys })}
        />
        <div className="mt-4 columns-3 gap-8 max-lg:columns-2 max-sm:columns-1">
          {[everywhere, turning, lists, page, tools].map((part) => (
            <section key={part.title} aria-label={part.title} className="mb-5">
              <h3 className="mb-1 break-inside-avoid break-after-avoid text-[16px]">{part.title}</h3>
              <dl>
                {part.lines.map(({ keys, does }) => (
                  <div
                    key={does}
                    className="flex break-inside-avoid items-baseline gap-3 border-b border-base-300 py-0.5"
                  >
                    <dt className="w-[40%] shrink-0 font-semibold">{keys}</dt>
                    <dd className="min-w-0">{does}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
        </div>
      </div>
    </Dialog>
  );
}
