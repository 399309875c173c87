import { t } from '@lingui/core/macro';
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
  title: t`Everywhere`,
  lines: [
    { keys: '?', does: t`This sheet` },
    { keys: t`Alt J`, does: t`Jot: an empty page at once` },
    { keys: '[  ]', does: t`The notebook open before, or next` },
    { keys: t`Ctrl Z`, does: t`Take back what was done last` },
    { keys: t`Escape`, does: t`Close, let go, or leave` },
  ],
};
const page: KeyPart = {
  title: t`On a page`,
  lines: [
    { keys: '1 – 9', does: t`The pens` },
    { keys: 'X', does: t`The pen before` },
    { keys: t`Shift M`, does: t`Mark what was just written` },
    { keys: 'R', does: t`Read, or write` },
    { keys: 'F', does: t`Full view` },
    { keys: '+  −  0', does: t`Larger, smaller, the whole width` },
    { keys: t`Ctrl Z   Ctrl Y`, does: t`Undo, redo` },
    { keys: t`Ctrl A   C   X   V   D`, does: t`Select all, copy, cut, lay down, double` },
    { keys: t`Arrows, Shift`, does: t`Nudge what is selected, by ten` },
    { keys: t`Space held`, does: t`Hold the sheet` },
  ],
};
const turning: KeyPart = {
  title: t`Turning pages`,
  lines: [
    { keys: t`Page down, →, Space`, does: t`The next page` },
    { keys: t`Page up, ←, Shift Space`, does: t`The page before` },
    { keys: t`Home   End`, does: t`The first, the last` },
    { keys: t`Ctrl Page down`, does: t`A new page after the last` },
  ],
};
const lists: KeyPart = {
  title: t`In lists and trees`,
  lines: [
    { keys: t`Arrows`, does: t`From thing to thing; in a tree → unfolds and ← folds` },
    { keys: t`Space`, does: t`Choose` },
    { keys: 'F2', does: t`Rename` },
    { keys: 'M', does: t`Move` },
    { keys: 'T', does: t`Tag` },
    { keys: t`Delete`, does: t`Into the bin` },
    { keys: t`Alt Arrows`, does: t`One place on` },
  ],
};

/** All that goes by keys. */
export function KeysSheet() {
  const personal = usePersonal();
  const letters = useLetterKeys();
  const tools: KeyPart = {
    title: t`Tools`,
    lines: offers.flatMap((offer) => (offer.key ? [{ keys: offer.key.toUpperCase(), does: offer.title }] : [])),
  };
  return (
    <Dialog title={t`Keys`} wide onClose={() => openKeys(false)}>
      <div data-testid="keys-sheet">
        <Switch
          label={t`Single letters and signs are keys`}
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
