import { t } from '@lingui/core/macro';
import { NoteBlankIcon } from '@phosphor-icons/react';
import { slipHand } from '../hand/slipHand';
import type { PanelProps, Tool } from '../hand/tool';
import { ColourWells } from './ColourWells';
import { Unfolded } from './Unfolded';

interface SlipSettings {
  /** #rrggbb. */
  colour: string;
  /** The pen is in the hand again once a slip lies there, to write on it. */
  back: boolean;
}

/** Papers that slips are of. */
const slipPapers: readonly [string, string][] = [
  ['#f3e2a4', t`Straw`],
  ['#f2cdb8', t`Clay`],
  ['#d5dfb8', t`Lichen`],
  ['#c5d8e0', t`Sky`],
  ['#fbf7ec', t`Oat`],
];

/** Laying a coloured paper slip on the page. */
export const slip: Tool<SlipSettings> = {
  name: 'slip',
  words: () => t`Slip`,
  icon: () => NoteBlankIcon,
  key: 'n',
  first: { colour: slipPapers[0]![0], back: true },
  Panel: SlipPanel,
  hint: t`Press where a slip is to lie, or drag as large as it is to be.`,
  hold: ({ colour }) => ({
    name: 'slip',
    leavesInk: true,
    takeUp: (at) => slipHand(at, `${colour.slice(1)}ff`),
  }),
};

/** The papers of slips, side by side. */
function SlipPapers({ colour, onColour }: { colour: string; onColour: (colour: string) => void }) {
  return (
    <div role="group" aria-label={t`Paper of the slip`} className="mt-2 flex gap-1.5">
      {slipPapers.map(([paper, name]) => (
        <button
          key={paper}
          type="button"
          aria-label={name}
          title={name}
          aria-pressed={colour === paper}
          data-testid={`slip-paper-${paper.slice(1)}`}
          className={`h-11 grow border ${colour === paper ? 'border-2 border-primary' : 'border-base-300'}`}
          style={{ backgroundColor: paper }}
          onClick={() => onColour(paper)}
        />
      ))}
    </div>
  );
}

function SlipPanel({ tools }: PanelProps) {
  const { colour } = tools.settingsOf(slip);
  const change = (to: string) => tools.change(slip, { colour: to });
  return (
    <Unfolded title={t`Slip`} testId="slip-settings" hint={t`What is written on it goes along with it.`}>
      <SlipPapers colour={colour} onColour={change} />
      <ColourWells colour={colour} onColour={change} />
    </Unfolded>
  );
}
