import { HandIcon } from '@phosphor-icons/react';
import { Segments, Switch } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import { handTools } from './handTools';
import { unfolding } from './offering';
import type { Offer, PanelProps } from '../hand/tool';
import { Unfolded } from './Unfolded';

/** What pen and finger do. */
export const habits: Offer = {
  ...unfolding('habits'),
  words: () => 'Habits',
  title: 'Pen and finger',
  icon: () => HandIcon,
  key: 'h',
  Panel: HabitsPanel,
};

/** What a finger, or a pen's button or tail, may stand for. */
const standIns = handTools.flatMap((tool) =>
  tool.standIn ? [{ name: tool.name, words: tool.words(tool.first).toLowerCase(), ...tool.standIn }] : [],
);

function HabitsPanel({ tools }: PanelProps) {
  const { habits, changeHabits: change } = tools;
  return (
    <Unfolded title="Pen and finger" testId="habits-settings">
      <p className="mt-2 text-[13px] text-quiet">Once a pen was seen, a finger</p>
      <Segments
        label="What a finger does"
        columns={2}
        value={habits.finger}
        onValue={(finger) => change({ finger })}
        options={[
          { value: 'scroll', words: 'scrolls', testId: 'finger-scroll' },
          ...standIns.map(({ finger, does }) => ({ value: finger, words: does, testId: `finger-${finger}` })),
          { value: 'write', words: 'writes', testId: 'finger-write' },
          { value: 'nothing', words: 'does nothing', testId: 'finger-nothing' },
        ]}
      />
      <Switch
        label="Two fingers tap to undo, three to redo"
        on={habits.taps}
        testId="finger-taps"
        onChange={(taps) => change({ taps })}
      />
      <p className="mt-2 text-[13px] text-quiet">The pen’s side button takes up the</p>
      <Segments
        label="Side button"
        value={habits.button}
        onValue={(button) => change({ button })}
        options={[
          ...standIns.map(({ name, words }) => ({ value: name, words, testId: `button-${name}` })),
          { value: 'pen', words: 'last pen', testId: 'button-pen' },
        ]}
      />
      <Switch
        label="While it is held"
        on={habits.buttonHeld}
        testId="button-held"
        onChange={(buttonHeld) => change({ buttonHeld })}
      />
      <p className="mt-2 text-[13px] text-quiet">The pen’s tail is the</p>
      <Segments
        label="Tail"
        value={habits.tail}
        onValue={(tail) => change({ tail })}
        options={[
          ...standIns
            .filter(({ tail }) => tail)
            .map(({ name, words }) => ({ value: name, words, testId: `tail-${name}` })),
        ]}
      />
      <Segments
        label="Writing hand"
        value={habits.leftHanded ? 'left' : 'right'}
        onValue={(hand) => change({ leftHanded: hand === 'left' })}
        options={[
          { value: 'left', words: 'Left hand', testId: 'hand-left' },
          { value: 'right', words: 'Right hand', testId: 'hand-right' },
        ]}
      />
      <Slider
        label="An arrow key nudges"
        value={habits.nudge}
        min={25}
        max={500}
        step={25}
        testId="nudge"
        words={(nudge) => `${(nudge / 100).toFixed(2)} mm`}
        onValue={(nudge) => change({ nudge })}
      />
      <Switch
        label="Dim paper at night"
        on={habits.dimPaper}
        testId="dim-paper"
        onChange={(dimPaper) => change({ dimPaper })}
      />
    </Unfolded>
  );
}
