import { t } from '@lingui/core/macro';
import { ShapesIcon } from '@phosphor-icons/react';
import { Fragment } from 'react';
import { Segments, Switch } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import {
  connectorEnds,
  connectorRoutes,
  type ShapeChoice,
  ShapeHand,
  shapeKinds,
  type ShapeSettings,
} from '../hand/shapeHand';
import { ColourWells } from './ColourWells';
import { ShapeFace } from './ShapeFace';
import type { PanelProps, Tool } from '../hand/tool';
import { Unfolded } from './Unfolded';
import { lengthWords, numberWords } from '../../words/language';

/** Drawing shapes, with the pen chosen last. */
export const shape: Tool<ShapeSettings> = {
  name: 'shape',
  words: () => t`Shape`,
  icon: () => ShapesIcon,
  key: 's',
  first: { kind: 'free', fill: '', fillOpacity: 0.35, route: 'straight', start: 'none', end: 'arrow' },
  unfolds: true,
  Panel: ShapePanel,
  hold: (settings, pen) => ({
    name: 'shape',
    leavesInk: true,
    keepsToGuide: true,
    nib: { width: pen.width, colour: pen.colour },
    takeUp: (at) => new ShapeHand(at, { ...settings, pen }),
  }),
};

const shapeNames: Record<ShapeChoice, string> = {
  free: t`As I draw it`,
  line: t`Line`,
  arrow: t`Arrow`,
  doubleArrow: t`Arrow both ways`,
  circle: t`Circle`,
  ellipse: t`Ellipse`,
  triangle: t`Triangle`,
  square: t`Square`,
  rectangle: t`Rectangle`,
  rhombus: t`Rhombus`,
  parallelogram: t`Parallelogram`,
  trapezoid: t`Trapezoid`,
  polygon: t`Hexagon`,
  star: t({ message: 'Star', context: 'a shape' }),
  arc: t`Arc`,
  wave: t`Wave`,
  connector: t`Connector`,
};

const endNames: Record<keyof typeof connectorEnds, string> = {
  none: t({ message: 'Plain', context: 'the end of a line' }),
  arrow: t`Arrow`,
  dot: t`Dot`,
};

/** What can be said of how a connector looks: each with what it can be, as a setting, in words, and as Core numbers it. */
export const connectorParts = [
  partOf('route', t`How it runs`, { straight: t`Straight`, bent: t`Bent`, curved: t`Curved` }, connectorRoutes),
  partOf('start', t`Where it begins`, endNames, connectorEnds),
  partOf('end', t`Where it ends`, endNames, connectorEnds),
];

function partOf<T extends string>(
  part: 'route' | 'start' | 'end',
  label: string,
  names: Record<T, string>,
  numbers: Record<T, number>,
) {
  const choices = (Object.keys(names) as T[]).map((value) => ({ value, words: names[value], number: numbers[value] }));
  return { part, label, choices };
}

function ShapePanel({ tools }: PanelProps) {
  const settings = tools.settingsOf(shape);
  const { habits } = tools;
  const change = (changed: Partial<ShapeSettings>) => tools.change(shape, changed);
  return (
    <Unfolded
      title={t`Shape`}
      aside={shapeNames[settings.kind]}
      testId="shape-settings"
      hint={t`Drawn with the pen chosen last. Shift keeps lines at 15° and sides even.`}
    >
      <div role="group" aria-label={t`Kind of shape`} className="mt-2 grid grid-cols-4 gap-1">
        {(Object.keys(shapeKinds) as ShapeChoice[]).map((kind) => (
          <button
            key={kind}
            type="button"
            aria-pressed={settings.kind === kind}
            aria-label={shapeNames[kind]}
            title={shapeNames[kind]}
            data-testid={`shape-${kind}`}
            onClick={() => change({ kind })}
            className={`grid h-11 place-items-center rounded-md border ${settings.kind === kind ? 'border-primary bg-base-200' : 'border-transparent hover:border-base-300'}`}
          >
            <ShapeFace kind={kind} />
          </button>
        ))}
      </div>
      {settings.kind === 'connector' && (
        <>
          <p className="mt-3 text-[13px]">{t`It joins what it begins at to what it ends at, and goes along with both.`}</p>
          {connectorParts.map(({ part, label, choices }) => (
            <Fragment key={part}>
              <p className="mt-3 text-[13px]">{label}</p>
              <Segments<string>
                label={label}
                value={settings[part]}
                options={choices.map(({ value, words }) => ({ value, words, testId: `connector-${part}-${value}` }))}
                onValue={(value) => change({ [part]: value })}
              />
            </Fragment>
          ))}
        </>
      )}
      {settings.kind !== 'connector' && (
        <Switch
          label={t`Filled`}
          on={settings.fill !== ''}
          testId="shape-filled"
          onChange={(on) => change({ fill: on ? '#e3b23c' : '' })}
        />
      )}
      {settings.fill && settings.kind !== 'connector' && (
        <>
          <ColourWells colour={settings.fill} onColour={(fill) => change({ fill })} />
          <Slider
            label={t`Opacity of the fill`}
            value={Math.round(settings.fillOpacity * 100)}
            min={5}
            max={100}
            step={5}
            testId="shape-fill-opacity"
            words={(share) => `${share} %`}
            onValue={(share) => change({ fillOpacity: share / 100 })}
          />
        </>
      )}
      <Slider
        label={t`Join ends within`}
        value={habits.join}
        min={0}
        max={800}
        step={50}
        testId="join"
        words={(join) => (join === 0 ? t`never` : lengthWords(join, 1))}
        onValue={(join) => tools.changeHabits({ join })}
      />
      <p className="mt-3 text-[13px]">{t`The paper’s own lines are met by`}</p>
      <Segments
        label={t`The paper’s own lines are met by`}
        value={habits.joinPrinted}
        options={[
          { value: 'never', words: t`Nothing`, testId: 'join-printed-never' },
          { value: 'straight', words: t`Level ends`, testId: 'join-printed-straight' },
          { value: 'all', words: t`All ends`, testId: 'join-printed-all' },
        ]}
        onValue={(joinPrinted) => tools.changeHabits({ joinPrinted })}
      />
      <Slider
        label={t`Tidy when the pen rests`}
        value={habits.tidyAfter}
        min={0}
        max={1500}
        step={50}
        testId="tidy-after"
        words={(after) => (after === 0 ? t`never` : `${numberWords(after / 1000, 2)} s`)}
        onValue={(after) => tools.changeHabits({ tidyAfter: after > 0 && after < 300 ? 300 : after })}
      />
      <Slider
        label={t`Then only what is larger than`}
        value={habits.tidyLeast}
        min={500}
        max={4000}
        step={100}
        testId="tidy-least"
        words={(least) => `${least / 100} mm`}
        onValue={(tidyLeast) => tools.changeHabits({ tidyLeast })}
      />
    </Unfolded>
  );
}
