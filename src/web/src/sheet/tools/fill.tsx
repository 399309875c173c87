import { t } from '@lingui/core/macro';
import { PaintBucketIcon } from '@phosphor-icons/react';
import { sentenceOf } from '../../core/runtime';
import { toRgba } from '../../model/pens';
import { Slider } from '../../ui/Slider';
import type { Workplace } from '../hand/hand';
import { PressHand } from '../hand/pressHand';
import { ColourWells } from './ColourWells';
import type { PanelProps, Tool } from '../hand/tool';
import { Unfolded } from './Unfolded';
import { lengthWords } from '../../words/language';

interface FillSettings {
  /** #rrggbb. */
  colour: string;
  /** 0 to 1. */
  opacity: number;
  /** How wide a gap is closed, 0.01 mm. */
  gap: number;
}

const fillField = 5;

/** Filling what strokes and shapes close in. */
export const fill: Tool<FillSettings> = {
  name: 'fill',
  words: () => t`Fill`,
  icon: () => PaintBucketIcon,
  key: 'b',
  first: { colour: '#e3b23c', opacity: 0.35, gap: 200 },
  Panel: FillPanel,
  hold: (settings) => ({
    name: 'fill',
    leavesInk: true,
    takeUp: (at) => new PressHand((x, y) => fillAt(at, settings, x, y)),
  }),
};

/** A closed shape takes the fill itself; else the region that ink closes in is filled. */
function fillAt({ core, page, paper, layer, events }: Workplace, settings: FillSettings, x: number, y: number): void {
  const { colour, opacity, gap } = settings;
  const rgba = toRgba(colour, opacity);
  const closed = core.ShapeBridge.ClosedAt(page.handle, x, y);
  if (closed)
    return void page.perform((handle, now) =>
      core.HandBridge.Set(handle, [closed], [fillField], [rgba.toString(16).padStart(8, '0')], now),
    );
  try {
    if (!page.perform((handle, now) => core.ShapeBridge.Fill(handle, paper, x, y, gap, rgba, layer(), now)))
      events().say(t`Nothing closes this in. A wider gap can be chosen with the tool, or the line closed.`);
  } catch (error) {
    events().say(sentenceOf(error));
  }
}

function FillPanel({ tools }: PanelProps) {
  const settings = tools.settingsOf(fill);
  const change = (changed: Partial<FillSettings>) => tools.change(fill, changed);
  return (
    <Unfolded title={t`Fill`} testId="fill-settings" hint={t`Press inside what strokes and shapes close in.`}>
      <ColourWells colour={settings.colour} onColour={(colour) => change({ colour })} />
      <Slider
        label={t`Opacity`}
        value={Math.round(settings.opacity * 100)}
        min={5}
        max={100}
        step={5}
        testId="fill-opacity"
        words={(share) => `${share} %`}
        onValue={(share) => change({ opacity: share / 100 })}
      />
      <Slider
        label={t`Closes gaps of`}
        value={settings.gap}
        min={0}
        max={800}
        step={20}
        testId="fill-gap"
        words={(gap) => lengthWords(gap, 1)}
        onValue={(gap) => change({ gap })}
      />
    </Unfolded>
  );
}
