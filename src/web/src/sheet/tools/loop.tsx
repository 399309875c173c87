import { t } from '@lingui/core/macro';
import { LassoIcon, SelectionIcon } from '@phosphor-icons/react';
import { Segments, Switch } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import { LoopHand, type LoopSettings } from '../hand/loopHand';
import { allKinds, itemKinds } from '../hand/things';
import type { PanelProps, Tool } from '../hand/tool';
import { Unfolded } from './Unfolded';

/** Selecting, by a loop, a box or a press. */
export const loop: Tool<LoopSettings> = {
  name: 'loop',
  words: ({ box }) => (box ? t`Box` : t`Loop`),
  title: t`Select`,
  icon: ({ box }) => (box ? SelectionIcon : LassoIcon),
  key: 'l',
  first: { box: false, share: 0.5, takes: allKinds, onlyLayer: false },
  standIn: { finger: 'select', does: 'selects', tail: true },
  Panel: LoopPanel,
  hold: (settings) => ({
    name: 'loop',
    keepsTaken: true,
    takeUp: (at) => new LoopHand(at, whole(settings)),
    pressTaken: (at, x, y) => new LoopHand(at, whole(settings)).press(x, y),
  }),
};

/** Kinds that can be left out. */
const switched = itemKinds.ink | itemKinds.highlighter | itemKinds.shape | itemKinds.area | itemKinds.text;

/** What can't be left out is taken, also by settings that were kept before there was such a thing. */
const whole = (settings: LoopSettings): LoopSettings => ({
  ...settings,
  takes: settings.takes | (allKinds & ~switched),
});

function LoopPanel({ tools, sheet }: PanelProps) {
  const settings = tools.settingsOf(loop);
  const change = (changed: Partial<LoopSettings>) => tools.change(loop, changed);
  const kind = (bit: number) => ({
    on: (settings.takes & bit) !== 0,
    onChange: (on: boolean) => change({ takes: on ? settings.takes | bit : settings.takes & ~bit || allKinds }),
  });
  return (
    <Unfolded
      title={t`Select`}
      testId="loop-settings"
      hint={t`Draw round things, or press on one to add it or take it out.`}
    >
      <Segments
        label={t`How`}
        value={settings.box ? 'box' : 'loop'}
        onValue={(way) => change({ box: way === 'box' })}
        options={[
          { value: 'loop', words: t`Loop`, testId: 'select-loop' },
          { value: 'box', words: t`Box`, testId: 'select-box' },
        ]}
      />
      <Slider
        label={t`Takes what is inside`}
        value={Math.round(settings.share * 100)}
        min={5}
        max={100}
        step={5}
        testId="select-share"
        words={(share) => `${share} %`}
        onValue={(share) => change({ share: share / 100 })}
      />
      <Switch label={t`Ink`} testId="take-ink" {...kind(itemKinds.ink)} />
      <Switch label={t`Highlighter`} testId="take-highlighter" {...kind(itemKinds.highlighter)} />
      <Switch label={t`Shapes`} testId="take-shapes" {...kind(itemKinds.shape)} />
      <Switch label={t`Fills`} testId="take-fills" {...kind(itemKinds.area)} />
      <Switch label={t`Typed text`} testId="take-text" {...kind(itemKinds.text)} />
      <Switch
        label={t`Only the layer I write on`}
        on={settings.onlyLayer}
        testId="take-layer"
        onChange={(onlyLayer) => change({ onlyLayer })}
      />
      <div className="mt-2 grid grid-cols-2 gap-1.5">
        <button
          type="button"
          className="h-10 rounded-md border border-base-300 text-[13px] hover:border-primary"
          data-testid="select-all"
          onClick={sheet.takeAll}
        >{t`Select all`}</button>
        <button
          type="button"
          className="h-10 rounded-md border border-base-300 text-[13px] hover:border-primary"
          title={t`Lays down what was copied or cut`}
          data-testid="paste"
          onClick={sheet.paste}
        >{t`Lay down`}</button>
      </div>
    </Unfolded>
  );
}
