import { Toggle } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { type ReactNode, useState } from 'react';
import { usePersonal } from '../data/usePersonal';
import { useWorkspace } from '../data/useWorkspace';
import { lengthUnit, type LengthUnit, setLengthUnit } from '../model/units';
import { type Paper, paperChoices, wordsOfSize } from '../model/drawing';
import { lengthWords } from '../words/language';

const tints = [
  '#fffdf7',
  '#faf3e3',
  '#f6ead0',
  '#eef2e6',
  '#e8eff2',
  '#f5e9e4',
  '#efe9f1',
  '#2b3634',
  '#2f3140',
  '#3a2e2b',
];
const lineTints = ['#c9d3cf', '#b9c8d6', '#d8c3a5', '#e0b9ac', '#9fb0a8', '#6e7f8a'];

/** What can be set of a paper; only what its design has. Lengths are in the unit that the person chose. */
export function PaperSettings({ paper, onChange }: { paper: Paper; onChange: (change: Partial<Paper>) => void }) {
  const { core } = useWorkspace();
  const [unit, setUnit] = useState(lengthUnit);
  const { designs, sizes } = paperChoices(core);
  const design = designs.find((one) => one.name === paper.design)!;
  const isFree = paper.size.includes('x');
  const personal = usePersonal();
  const onUnit = (to: LengthUnit) => {
    setLengthUnit(to);
    setUnit(to);
    personal?.setHabits({ unit: to });
  };
  const unitOf = { unit, onUnit };
  return (
    <div className="grid gap-3">
      <label>
        <Words>{t`Size`}</Words>
        <select
          className="select h-11 w-full border-base-300 bg-base-100"
          value={isFree ? 'free' : paper.size}
          data-testid="paper-size"
          onChange={(event) =>
            onChange(
              event.target.value === 'free'
                ? { size: `${paper.width}x${paper.height}`, across: false }
                : {
                    size: event.target.value,
                    across: design.across || sizes.find(({ name }) => name === event.target.value)!.across,
                  },
            )
          }
        >
          {sizes.map((size) => (
            <option key={size.name} value={size.name}>
              {wordsOfSize(size.name)}
            </option>
          ))}
          <option value="free">{t`Free`}</option>
        </select>
      </label>
      {isFree && (
        <div className="grid grid-cols-2 gap-2">
          <Length
            label={t`Width`}
            value={paper.width}
            testId="paper-width"
            {...unitOf}
            onChange={(width) => onChange({ size: `${width}x${paper.height}`, across: false })}
          />
          <Length
            label={t`Height`}
            value={paper.height}
            testId="paper-height"
            {...unitOf}
            onChange={(height) => onChange({ size: `${paper.width}x${height}`, across: false })}
          />
        </div>
      )}
      <Pick
        label={t`Lies`}
        value={paper.across ? 'across' : 'upright'}
        choices={{ upright: t`upright`, across: t`across` }}
        testId="paper-lies"
        onPick={(value) => onChange({ across: value === 'across' })}
      />
      <Pick
        label={t`Grows`}
        value={paper.growth === 'none' ? 'no' : paper.growth === 'down' ? 'down' : 'all ways'}
        choices={{ no: t`no`, down: t`down`, 'all ways': t`all ways` }}
        testId="paper-grows"
        onPick={(value) => onChange({ growth: value === 'no' ? 'none' : value === 'down' ? 'down' : 'all' })}
      />
      {design.spacingWords && !paper.own && (
        <Length
          label={t`${design.spacingWords} apart`}
          value={paper.spacing}
          testId="paper-spacing"
          {...unitOf}
          onChange={(spacing) => onChange({ spacing })}
        />
      )}
      {design.countWords && !paper.own && (
        <label>
          <Words>{design.countWords}</Words>
          <input
            type="number"
            className="field"
            min={1}
            max={design.mostCount}
            value={paper.count ?? design.usualCount}
            data-testid="paper-count"
            onChange={(event) => onChange({ count: Number(event.target.value) })}
          />
        </label>
      )}
      {(design.hasHead || design.marginWords) && !paper.own && (
        <div className="grid grid-cols-2 gap-2">
          {design.hasHead && (
            <Length
              label={t`First line at`}
              value={paper.head ?? paper.usualHead}
              testId="paper-head"
              {...unitOf}
              onChange={(head) => onChange({ head })}
            />
          )}
          {design.marginWords && (
            <Length
              label={design.marginWords}
              value={paper.margin ?? paper.usualMargin}
              testId="paper-margin"
              {...unitOf}
              onChange={(margin) => onChange(margin > 0 ? { margin } : { margin: undefined as never })}
            />
          )}
        </div>
      )}
      <Colours
        label={t`Paper`}
        value={paper.colour}
        choices={tints}
        testId="paper-tint"
        onPick={(tint) => onChange({ tint })}
      />
      {!paper.own && (
        <Colours
          label={t`Lines`}
          value={paper.lines ?? ''}
          choices={lineTints}
          testId="line-tint"
          onPick={(lines) => onChange({ lines })}
        />
      )}
      {!paper.own && (
        <label>
          <Words>
            {t`Line weight`} <span className="font-normal text-quiet">{lengthWords(paper.weight ?? 15)}</span>
          </Words>
          <input
            type="range"
            className="range range-primary range-xs w-full"
            min={5}
            max={100}
            step={5}
            value={paper.weight ?? 15}
            onChange={(event) => onChange({ weight: Number(event.target.value) })}
          />
        </label>
      )}
      <div className="grid">
        {design.hasWords && !paper.own && (
          <Switch label={t`With its printed words`} on={!paper.plain} onSwitch={(on) => onChange({ plain: !on })} />
        )}
        {design.canBeHeaded && !paper.own && (
          <Switch
            label={t`A header for title and date`}
            on={paper.headed}
            testId="paper-headed"
            onSwitch={(headed) => onChange({ headed })}
          />
        )}
        {paper.design === 'staves' && (
          <Switch
            label={t`Staves in pairs, with braces`}
            on={paper.paired}
            onSwitch={(paired) => onChange({ paired })}
          />
        )}
        <Switch label={t`A light grain`} on={paper.grain} onSwitch={(grain) => onChange({ grain })} />
      </div>
    </div>
  );
}

function Words({ children }: { children: ReactNode }) {
  return <span className="mb-1 block font-semibold">{children}</span>;
}

/** A length, typed in mm or inch; pressing the unit changes it everywhere. */
function Length({
  label,
  value,
  unit,
  onUnit,
  onChange,
  testId,
}: {
  label: string;
  value: number;
  unit: LengthUnit;
  onUnit: (unit: LengthUnit) => void;
  onChange: (value: number) => void;
  testId?: string;
}) {
  const units = unit === 'mm' ? 100 : 2540;
  const [typed, setTyped] = useState<string>();
  return (
    <label className="block">
      <Words>{label}</Words>
      <span className="flex items-center gap-1">
        <input
          inputMode="decimal"
          className="field min-w-0"
          value={typed ?? String(Math.round((value / units) * 100) / 100)}
          data-testid={testId}
          onChange={(event) => {
            setTyped(event.target.value);
            const number = Number(event.target.value.replace(',', '.'));
            if (event.target.value.trim() && Number.isFinite(number)) onChange(Math.round(number * units));
          }}
          onBlur={() => setTyped(undefined)}
        />
        <button
          type="button"
          title={t`Change the unit`}
          className="h-10 min-w-10 shrink-0 rounded-md text-quiet hover:bg-base-200"
          onClick={() => onUnit(unit === 'mm' ? 'in' : 'mm')}
        >
          {unit}
        </button>
      </span>
    </label>
  );
}

function Pick({
  label,
  value,
  choices,
  testId,
  onPick,
}: {
  label: string;
  value: string;
  /** What can be picked, and what it is called. */
  choices: Record<string, string>;
  testId: string;
  onPick: (value: string) => void;
}) {
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{label}</legend>
      <div className="flex gap-1.5">
        {Object.entries(choices).map(([one, words]) => (
          <Toggle
            on={value === one}
            key={one}
            data-testid={`${testId}-${one.replace(' ', '-')}`}
            onClick={() => onPick(one)}
            className="grow"
          >
            {words}
          </Toggle>
        ))}
      </div>
    </fieldset>
  );
}

function Colours({
  label,
  value,
  choices,
  testId,
  onPick,
}: {
  label: string;
  value: string;
  choices: string[];
  testId: string;
  onPick: (colour: string) => void;
}) {
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{label}</legend>
      <div className="flex flex-wrap">
        {choices.map((one) => (
          <button
            key={one}
            type="button"
            aria-label={`${label} ${one}`}
            title={one}
            aria-pressed={value === one}
            onClick={() => onPick(one)}
            className="grid size-10 place-items-center"
          >
            <ColourDot colour={one} on={value === one} />
          </button>
        ))}
        <label className="relative grid size-10 cursor-pointer place-items-center" title={t`Another colour`}>
          <input
            type="color"
            className="absolute inset-0 size-full cursor-pointer opacity-0"
            aria-label={t`${label}, another colour`}
            value={value || choices[0]}
            data-testid={testId}
            onChange={(event) => onPick(event.target.value)}
          />
          <span className="grid size-7 place-items-center rounded-full border border-dashed border-quiet text-quiet">
            +
          </span>
        </label>
      </div>
    </fieldset>
  );
}

function ColourDot({ colour, on }: { colour: string; on: boolean }) {
  return (
    <svg
      viewBox="0 0 28 28"
      width="28"
      height="28"
      aria-hidden="true"
      className={`rounded-full ${on ? 'outline-2 outline-offset-1 outline-primary' : ''}`}
    >
      <circle cx="14" cy="14" r="13.5" fill={colour} stroke="var(--color-base-300)" />
    </svg>
  );
}

function Switch({
  label,
  on,
  testId,
  onSwitch,
}: {
  label: string;
  on: boolean;
  testId?: string;
  onSwitch: (on: boolean) => void;
}) {
  return (
    <label className="flex min-h-10 cursor-pointer items-center gap-2.5">
      <input
        type="checkbox"
        className="checkbox checkbox-sm checkbox-primary"
        checked={on}
        data-testid={testId}
        onChange={(event) => onSwitch(event.target.checked)}
      />
      {label}
    </label>
  );
}
