import { t } from '@lingui/core/macro';
import { TextTIcon } from '@phosphor-icons/react';
import { Switch } from '../../ui/Segments';
import { TextHand } from '../hand/textHand';
import type { PanelProps, Tool } from '../hand/tool';
import { ColourWells } from './ColourWells';
import { StyleChoice, Typeface, TypeSize } from './TextChoices';
import { type Family, sampleOf, type Style, usualSize } from './textStyles';
import { Unfolded } from './Unfolded';

/** How text looks that is begun anew. */
export interface TextSettings {
  style: Style;
  family: Family;
  /** 0.1 pt; 0 for as the style has it. */
  size: number;
  colour: string;
  /** Whether it stands on the paper's lines, where there are some. */
  onLines: boolean;
}

/** Typing. */
export const text: Tool<TextSettings> = {
  name: 'text',
  words: () => t`Text`,
  icon: () => TextTIcon,
  key: 't',
  first: { style: '', family: 'serif', size: 0, colour: '#22302e', onLines: true },
  Panel: TextPanel,
  hint: t`Press where the text is to begin, or drag a box for it.`,
  hold: () => ({ name: 'text', leavesInk: true, takeUp: (at) => new TextHand(at) }),
};

function TextPanel({ tools }: PanelProps) {
  const settings = tools.settingsOf(text);
  const change = (changed: Partial<TextSettings>) => tools.change(text, changed);
  const size = settings.size || usualSize[settings.style];
  return (
    <Unfolded title={t`Text`} testId="text-settings" aside={t`as usual for new text`}>
      <p
        aria-hidden="true"
        data-testid="text-sample"
        className="mt-2 grid h-14 place-items-center overflow-hidden rounded-md border border-base-300 bg-paper"
        style={{
          ...sampleOf(settings.style, settings.family),
          color: settings.colour,
          fontSize: `${Math.min(size / 7.5, 34)}px`,
        }}
      >
        {t`A calm quill`}
      </p>
      <div className="mt-2">
        <StyleChoice
          value={settings.style}
          family={settings.family}
          testId="text-style"
          onValue={(style) => change({ style, size: 0 })}
        />
      </div>
      <Typeface value={settings.family} testId="text-family" onValue={(family) => change({ family })} />
      <TypeSize
        value={size}
        testId="text-size"
        onValue={(tenths) => change({ size: tenths === usualSize[settings.style] ? 0 : tenths })}
      />
      <ColourWells colour={settings.colour} onColour={(colour) => change({ colour })} />
      <Switch
        label={t`Stands on the paper’s lines`}
        on={settings.onLines}
        testId="text-on-lines"
        onChange={(onLines) => change({ onLines })}
      />
      <Switch
        label={t`Underlines addresses, days and sums`}
        on={tools.habits.seesWords}
        testId="text-sees-words"
        onChange={(seesWords) => tools.changeHabits({ seesWords })}
      />
    </Unfolded>
  );
}
