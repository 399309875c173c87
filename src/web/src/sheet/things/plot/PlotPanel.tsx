import { t } from '@lingui/core/macro';
import { MagnifyingGlassMinusIcon, MagnifyingGlassPlusIcon, PlusIcon } from '@phosphor-icons/react';
import { useId, useState } from 'react';
import type { PlotRows, ShownPlot } from '../../../core/thingBridge';
import { useWorkspace } from '../../../data/useWorkspace';
import type { OpenDocument } from '../../../sync/openDocument';
import { Button, SignButton } from '../../../ui/Button';
import { PickField } from '../../../ui/PickField';
import { Switch } from '../../../ui/Segments';
import { sentenceTold } from '../../../words/sentences';
import { showsField, useItemFields } from '../../hand/useItemFields';
import { zoomStep } from './PlotPlane';
import { axes, curves, data, inkOf, range, readCurve, readData, table } from './plotFields';

interface PlotPanelProps {
  page: OpenDocument;
  item: string;
  plot: ShownPlot;
}

const fitNames = (): [string, string][] => [
  ['0', t`nothing`],
  ['1', t`a line through 0`],
  ['2', t`a line`],
  ['3', t`a parabola`],
  ['4', t`a cubic`],
  ['5', t`a power`],
  ['6', t`an exponential`],
];

/** What a plot shows: its curves, its points and what is laid through them, its scales. */
export function PlotPanel({ page, item, plot }: PlotPanelProps) {
  const { core } = useWorkspace();
  const [more, setMore] = useState(0);
  const field = (number: number) => plot.fields[number] ?? '';
  const { set: write, words, turn } = useItemFields(page, item, field(showsField));
  const set = (number: number, value: string) => {
    if (value !== field(number)) write(number, value);
  };
  /** Points that are typed here come from no table any more; what is laid through them, and their colour, may change all the same. */
  const setPoints = (number: number, value: string) => {
    const isOwn = readData(value)?.rows !== readData(field(number))?.rows;
    if (number === data[0] && plot.followsTable && isOwn) write(table, '');
    set(number, value);
  };
  const typed = curves.filter((number) => field(number));
  const free = curves.find((number) => !field(number));
  const shown = free === undefined ? typed : [...typed, free];
  const points = data.slice(0, Math.max(1, data.filter((number) => field(number)).length + more));
  const [left, right, bottom, top] = plot.range;
  const { PlotBridge } = core;
  const zoom = (by: number) => set(range, PlotBridge.Text(PlotBridge.Widened(plot.range, by, by, 0.5, 0.5)));
  const [across = '', up = ''] = field(axes).split('\n');
  return (
    <section
      aria-label={t`Plot`}
      data-testid="plot-panel"
      className="flex w-max max-w-[calc(100vw-16px)] flex-wrap gap-x-5 rounded-lg border border-base-300 bg-base-100 p-3 shadow-md"
    >
      <div className="w-[250px]">
        <h3 className="text-[15px]">{t`Curves`}</h3>
        {shown.map((number, at) => (
          <CurveField
            key={number}
            at={at}
            text={field(number)}
            problem={plot.problems[number] && sentenceTold(plot.problems[number])}
            onText={(value) => set(number, value)}
            ink={inkOf(curves.indexOf(number))}
          />
        ))}
        <Switch
          label={t`Mark zeros, turns and crossings`}
          on={words.includes('marks')}
          testId="plot-marks"
          onChange={(on) => turn('marks', on)}
        />
        <Switch
          label={t`Angles in degrees`}
          on={words.includes('degrees')}
          testId="plot-degrees"
          onChange={(on) => turn('degrees', on)}
        />
        <Switch
          label={t`Grid`}
          on={!words.includes('plain')}
          testId="plot-grid"
          onChange={(on) => turn('plain', !on)}
        />
      </div>
      <div className="w-[220px]">
        <h3 className="text-[15px]">{t`Points`}</h3>
        {points.map((number, at) => (
          <DataField
            key={number}
            at={at}
            text={field(number)}
            ink={inkOf(at + 1)}
            onText={(value) => setPoints(number, value)}
            read={(rows, colour, fit) => JSON.parse(core.ThingBridge.PlotRows(rows, colour, Number(fit))) as PlotRows}
          />
        ))}
        {plot.followsTable && (
          <p className="mt-1 text-[13px] text-quiet" data-testid="plot-follows">
            {t`The first points follow their table.`}
          </p>
        )}
        {points.length < data.length && field(points.at(-1)!) && (
          <Button className="mt-1 px-2 text-[13px]" onClick={() => setMore(more + 1)}>
            <PlusIcon size={16} /> {t`More points`}
          </Button>
        )}
        {plot.told.map((sentence) => (
          <p key={sentence} className="mt-1 text-[13px]" data-testid="plot-told">
            {sentence}
          </p>
        ))}
      </div>
      <div className="w-[196px]">
        <h3 className="text-[15px]">{t`Scales`}</h3>
        <div className="grid grid-cols-2 gap-x-2">
          <NumberField
            label={t`from`}
            testId="plot-left"
            value={left}
            onValue={(to) => set(range, join(to, right, bottom, top))}
          />
          <NumberField
            label={t`to`}
            testId="plot-right"
            value={right}
            onValue={(to) => set(range, join(left, to, bottom, top))}
          />
          <NumberField
            label={t`below`}
            testId="plot-bottom"
            value={bottom}
            onValue={(to) => set(range, join(left, right, to, top))}
          />
          <NumberField
            label={t`above`}
            testId="plot-top"
            value={top}
            onValue={(to) => set(range, join(left, right, bottom, to))}
          />
          <TextField
            label={t`across`}
            testId="plot-across"
            value={across}
            onValue={(to) => set(axes, `${to}\n${up}`.trimEnd())}
          />
          <TextField
            label={t`upwards`}
            testId="plot-up"
            value={up}
            onValue={(to) => set(axes, `${across}\n${to}`.trimEnd())}
          />
        </div>
        <div className="mt-2 flex items-center gap-1.5">
          <SignButton label={t`See closer`} data-testid="plot-closer" onClick={() => zoom(1 / zoomStep)}>
            <MagnifyingGlassPlusIcon size={20} weight="light" />
          </SignButton>
          <SignButton label={t`See more of it`} data-testid="plot-wider" onClick={() => zoom(zoomStep)}>
            <MagnifyingGlassMinusIcon size={20} weight="light" />
          </SignButton>
          <Button className="px-2 text-[13px]" data-testid="plot-fit" onClick={() => set(range, '')}>
            {t`All points`}
          </Button>
        </div>
        <p className="mt-1.5 text-[13px] text-quiet">{t`Drag in the plot to see what lies beside; two fingers or the wheel show more or less of it.`}</p>
      </div>
    </section>
  );
}

const join = (...edges: number[]): string => edges.map(String).join(' ');

/** A curve as it is typed; it is drawn once the field is left, or with Enter. */
function CurveField({
  at,
  text,
  problem,
  ink,
  onText,
}: {
  at: number;
  text: string;
  problem: string | undefined;
  ink: string;
  onText: (text: string) => void;
}) {
  const curve = readCurve(text);
  const colour = curve?.colour ?? ink;
  const id = useId();
  return (
    <div className="mt-1.5">
      <div className="flex items-center gap-2">
        <span aria-hidden="true" className="h-1 w-5 rounded" style={{ backgroundColor: `#${colour}` }} />
        <Typed
          label={at === 0 ? t`Curve` : t`Curve ${at + 1}`}
          testId={`plot-curve-${at + 1}`}
          value={curve?.typed ?? ''}
          placeholder={at === 0 ? 'y = sin x' : ''}
          describedBy={problem ? id : undefined}
          onValue={(typed) => onText(typed.trim() ? `${colour} ${typed.trim()}` : '')}
        />
      </div>
      {problem && (
        <p id={id} role="alert" className="mt-0.5 ps-7 text-[13px] text-error" data-testid="plot-problem">
          {problem}
        </p>
      )}
    </div>
  );
}

/** Points as rows of two numbers, and what is laid through them. */
function DataField({
  at,
  text,
  ink,
  onText,
  read,
}: {
  at: number;
  text: string;
  ink: string;
  onText: (text: string) => void;
  read: (rows: string, colour: string, fit: string) => PlotRows;
}) {
  const standing = readData(text);
  const colour = standing?.colour ?? ink;
  const [draft, setDraft] = useState<string>();
  const [problem, setProblem] = useState('');
  const [fit, setFit] = useState(standing?.fit ?? '0');
  const keep = (rows: string, kind: string) => {
    if (rows.trim() === '') {
      setProblem('');
      setDraft(undefined);
      return onText('');
    }
    const told = read(rows, colour, kind);
    // What is no point stays where it was typed, and is not taken.
    if (told.wrong > 0) return setProblem(t`Row ${told.wrong} is no pair of numbers.`);
    setProblem('');
    setDraft(undefined);
    onText(told.text);
  };
  const rows = draft ?? standing?.rows ?? '';
  return (
    <div className="mt-1.5">
      <textarea
        aria-label={at === 0 ? t`Points, a row each` : t`Points ${at + 1}, a row each`}
        data-testid={`plot-data-${at + 1}`}
        className="field h-[92px] w-full py-1 font-mono text-[13px]"
        placeholder={'0.25 1.003\n1 2.006'}
        value={rows}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={() => draft !== undefined && keep(draft, fit)}
      />
      {problem && (
        <p role="alert" className="text-[13px] text-error">
          {problem}
        </p>
      )}
      <PickField
        label={t`Laid through them`}
        testId={`plot-fit-${at + 1}`}
        value={standing?.fit ?? fit}
        onValue={(kind) => {
          setFit(kind);
          if (rows.trim()) keep(rows, kind);
        }}
        options={fitNames()}
      />
    </div>
  );
}

/** A field that tells what was typed once it is left, or with Enter. */
function Typed({
  label,
  testId,
  value,
  placeholder,
  describedBy,
  onValue,
}: {
  label: string;
  testId: string;
  value: string;
  placeholder?: string;
  describedBy?: string | undefined;
  onValue: (value: string) => void;
}) {
  const [draft, setDraft] = useState<string>();
  const keep = () => {
    if (draft !== undefined) onValue(draft);
    setDraft(undefined);
  };
  return (
    <input
      aria-label={label}
      aria-describedby={describedBy}
      data-testid={testId}
      className="field h-11 min-w-0 grow"
      placeholder={placeholder}
      value={draft ?? value}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}

function TextField({
  label,
  ...rest
}: {
  label: string;
  testId: string;
  value: string;
  onValue: (to: string) => void;
}) {
  return (
    <label className="mt-1.5 block text-[13px]">
      {label}
      <Typed label={label} {...rest} />
    </label>
  );
}

function NumberField({
  value,
  onValue,
  ...rest
}: {
  label: string;
  testId: string;
  value: number;
  onValue: (to: number) => void;
}) {
  return (
    <TextField
      {...rest}
      value={String(Number(value.toPrecision(6)))}
      onValue={(to) => {
        const number = Number(to.replace(',', '.'));
        if (to.trim() && Number.isFinite(number)) onValue(number);
      }}
    />
  );
}
