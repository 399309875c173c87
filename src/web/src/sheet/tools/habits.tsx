import { t } from '@lingui/core/macro';
import { HandIcon } from '@phosphor-icons/react';
import { Segments, Switch } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import { handTools } from './handTools';
import { unfolding } from './offering';
import type { Offer, PanelProps } from '../hand/tool';
import { Unfolded } from './Unfolded';
import { lengthWords } from '../../words/language';

/** What pen and finger do. */
export const habits: Offer = {
  ...unfolding('habits'),
  words: () => t`Habits`,
  title: t`Pen and finger`,
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
    <Unfolded title={t`Pen and finger`} testId="habits-settings">
      <p className="mt-2 text-[13px] text-quiet">{t`Once a pen was seen, a finger`}</p>
      <Segments
        label={t`What a finger does`}
        columns={2}
        value={habits.finger}
        onValue={(finger) => change({ finger })}
        options={[
          { value: 'scroll', words: 'scrolls', testId: 'finger-scroll' },
          ...standIns.map(({ finger, does }) => ({ value: finger, words: does, testId: `finger-${finger}` })),
          { value: 'write', words: 'writes', testId: 'finger-write' },
          { value: 'nothing', words: t`does nothing`, testId: 'finger-nothing' },
        ]}
      />
      <Switch
        label={t`Two fingers tap to undo, three to redo`}
        on={habits.taps}
        testId="finger-taps"
        onChange={(taps) => change({ taps })}
      />
      <p className="mt-2 text-[13px] text-quiet">{t`The pen’s side button takes up the`}</p>
      <Segments
        label={t`Side button`}
        value={habits.button}
        onValue={(button) => change({ button })}
        options={[
          ...standIns.map(({ name, words }) => ({ value: name, words, testId: `button-${name}` })),
          { value: 'pen', words: t`last pen`, testId: 'button-pen' },
        ]}
      />
      <Switch
        label={t`While it is held`}
        on={habits.buttonHeld}
        testId="button-held"
        onChange={(buttonHeld) => change({ buttonHeld })}
      />
      <p className="mt-2 text-[13px] text-quiet">{t`The pen’s tail is the`}</p>
      <Segments
        label={t`Tail`}
        value={habits.tail}
        onValue={(tail) => change({ tail })}
        options={[
          ...standIns
            .filter(({ tail }) => tail)
            .map(({ name, words }) => ({ value: name, words, testId: `tail-${name}` })),
        ]}
      />
      <Segments
        label={t`Writing hand`}
        value={habits.leftHanded ? 'left' : 'right'}
        onValue={(hand) => change({ leftHanded: hand === 'left' })}
        options={[
          { value: 'left', words: t`Left hand`, testId: 'hand-left' },
          { value: 'right', words: t`Right hand`, testId: 'hand-right' },
        ]}
      />
      <Slider
        label={t`An arrow key nudges`}
        value={habits.nudge}
        min={25}
        max={500}
        step={25}
        testId="nudge"
        words={lengthWords}
        onValue={(nudge) => change({ nudge })}
      />
      <Switch
        label={t`Dim paper at night`}
        on={habits.dimPaper}
        testId="dim-paper"
        onChange={(dimPaper) => change({ dimPaper })}
      />
    </Unfolded>
  );
}
