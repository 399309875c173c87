import { t } from '@lingui/core/macro';
import { FlagPennantIcon, PlusIcon } from '@phosphor-icons/react';
import { addSpot } from '../../data/spots';
import { MarkSign } from '../../spots/markKinds';
import { PressHand } from '../hand/pressHand';
import type { PanelProps, Tool } from '../hand/tool';
import { Unfolded } from './Unfolded';

interface MarkSettings {
  /** The kind of mark that a press puts down. */
  kind: string;
}

/** A mark put on bare paper is so large, 0.01 mm. */
export const markHalf = 350;

/** Putting marks down. */
export const mark: Tool<MarkSettings> = {
  name: 'mark',
  words: () => t`Mark`,
  icon: () => FlagPennantIcon,
  key: 'm',
  first: { kind: 'ask' },
  // A kind of one's own belongs to one library.
  forgets: true,
  unfolds: true,
  Panel: MarkPanel,
  hold: ({ kind }) => ({
    name: 'mark',
    takeUp: ({ core, page, events }) =>
      new PressHand((x, y) =>
        events().chosen(
          addSpot(core, page, 'mark', [x - markHalf, y - markHalf, x + markHalf, y + markHalf], [], { mark: kind }),
        ),
      ),
  }),
};

function MarkPanel({ tools, sheet }: PanelProps) {
  const { kind: chosen } = tools.settingsOf(mark);
  return (
    <Unfolded title={t`Mark`} testId="mark-settings" hint={t`Press on the page where it belongs.`}>
      <div className="-mx-2 mt-1">
        {sheet.kinds.map((kind) => (
          <button
            key={kind.id}
            type="button"
            aria-pressed={chosen === kind.id}
            data-testid="mark-kind"
            data-name={kind.words}
            onClick={() => tools.change(mark, { kind: kind.id })}
            className={`flex h-11 w-full items-center gap-2.5 rounded-md px-2 text-start ${chosen === kind.id ? 'bg-base-200 font-semibold' : 'hover:bg-base-200'}`}
          >
            <MarkSign kind={kind} full={chosen === kind.id} />
            <span className="truncate">{kind.words}</span>
          </button>
        ))}
        <button
          type="button"
          className="flex h-11 w-full items-center gap-2.5 rounded-md px-2 text-start text-quiet hover:bg-base-200"
          data-testid="new-mark-kind"
          onClick={sheet.newKind}
        >
          <span className="grid size-[26px] place-items-center">
            <PlusIcon size={18} />
          </span>
          {t`A kind of your own`}
        </button>
      </div>
    </Unfolded>
  );
}
