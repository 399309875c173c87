import { t } from '@lingui/core/macro';
import { ArrowDownIcon, ArrowUpIcon, PlusIcon, TrashIcon } from '@phosphor-icons/react';
import { useEffect, useState } from 'react';
import type { Core } from '../../core/runtime';
import { usePersonal } from '../../data/usePersonal';
import { SignButton } from '../../ui/Button';
import { Segments, Switch } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import {
  mostHighlighterOpacity,
  newPen,
  type Pen,
  type PenKind,
  penKinds,
  penNames,
  penNumbers,
} from '../../model/pens';
import { pick } from './pick';
import type { PanelProps } from '../hand/tool';
import { ColourWells } from './ColourWells';
import { PenStroke } from './PenStroke';
import { Unfolded } from './Unfolded';
import { lengthWords } from '../../words/language';

/** Widths by a slider that takes small steps where pens are thin: 0.1 to 20 mm. */
const widthOf = (place: number) => Math.round(10 * 200 ** (place / 100));
const placeOf = (width: number) => (Math.log(width / 10) / Math.log(200)) * 100;

/** What the pen in the hand is like, with a stroke of it that changes along; and its place in the tray. */
export function PenSettings({ tools, sheet: { core, notebook } }: PanelProps) {
  const personal = usePersonal();
  const kept = tools.tray[tools.chosen]!;
  const [pen, setPen] = useState(kept);
  // A pen is the same as long as it says the same, however often it is read anew.
  useEffect(() => setPen(kept), [JSON.stringify(kept)]);
  const change = (changed: Partial<Pen>) => tools.changePen({ ...pen, ...changed });
  const draft = (changed: Partial<Pen>) => setPen({ ...pen, ...changed });
  const own = personal?.hasOwnTray(notebook) ?? false;
  return (
    <Unfolded title={penNames[pen.kind]} aside={t`pen ${tools.chosen + 1}`} testId="pen-settings">
      <div className="mt-1 rounded-md bg-paper">
        <PenStroke core={core} pen={pen} onPaper wide />
      </div>
      <div role="group" aria-label={t`Kind of pen`} className="mt-2 grid grid-cols-3 gap-1.5">
        {penKinds.map((kind) => (
          <KindButton
            key={kind}
            core={core}
            kind={kind}
            pen={pen}
            onKind={() => change({ ...newPen(kind, pen.colour), line: pen.line, stabilising: pen.stabilising })}
          />
        ))}
      </div>
      <Slider
        label={t`Width`}
        value={placeOf(pen.width)}
        min={0}
        max={100}
        step={0.5}
        testId="pen-width"
        words={(place) => lengthWords(widthOf(place))}
        onDraft={(place) => draft({ width: widthOf(place) })}
        onValue={(place) => change({ width: widthOf(place) })}
      />
      <NumberField
        label={t`Width in millimetres`}
        value={pen.width / 100}
        min={0.1}
        max={20}
        testId="pen-width-number"
        onValue={(mm) => change({ width: Math.round(mm * 100) })}
      />
      <ColourWells colour={pen.colour} onColour={(colour) => change({ colour })} onPick={() => tools.pressTool(pick)} />
      <Slider
        label={t`Opacity`}
        value={Math.round(pen.opacity * 100)}
        min={5}
        max={pen.kind === 'highlighter' ? Math.round(mostHighlighterOpacity * 100) : 100}
        step={1}
        testId="pen-opacity"
        words={(share) => `${share} %`}
        onDraft={(share) => draft({ opacity: share / 100 })}
        onValue={(share) => change({ opacity: share / 100 })}
      />
      <Segments
        label={t`Line`}
        value={pen.line}
        onValue={(line) => change({ line })}
        options={[
          { value: 'solid', words: t`Through`, testId: 'line-solid' },
          { value: 'dashed', words: t`Dashed`, testId: 'line-dashed' },
          { value: 'dotted', words: t`Dotted`, testId: 'line-dotted' },
        ]}
      />
      {pen.kind === 'calligraphy' && (
        <Slider
          label={t`Nib held at`}
          value={pen.angle}
          min={0}
          max={175}
          step={5}
          testId="pen-angle"
          words={(angle) => `${angle}°`}
          onDraft={(angle) => draft({ angle })}
          onValue={(angle) => change({ angle })}
        />
      )}
      {pen.kind === 'highlighter' && (
        <>
          <Segments
            label={t`Tip`}
            value={pen.square ? 'square' : 'round'}
            onValue={(tip) => change({ square: tip === 'square' })}
            options={[
              { value: 'round', words: t`Round tip`, testId: 'tip-round' },
              { value: 'square', words: t`Square tip`, testId: 'tip-square' },
            ]}
          />
          <Switch
            label={t`Straight lines`}
            on={pen.straight}
            testId="pen-straight"
            onChange={(straight) => change({ straight })}
          />
        </>
      )}
      {(pen.kind === 'fountain' || pen.kind === 'brush' || pen.kind === 'pencil') && (
        <>
          <Slider
            label={t`Pressure`}
            value={pen.response}
            min={-100}
            max={100}
            step={10}
            testId="pen-response"
            words={(response) => (response === 0 ? t`as it is` : response > 0 ? t`light hand` : t`heavy hand`)}
            onDraft={(response) => draft({ response })}
            onValue={(response) => change({ response })}
          />
          <ResponseCurve core={core} pen={pen} />
        </>
      )}
      <Slider
        label={t`Stabilising`}
        value={pen.stabilising}
        min={0}
        max={100}
        step={5}
        testId="pen-stabilising"
        words={(strength) => (strength === 0 ? 'none' : `${strength} %`)}
        onDraft={(stabilising) => draft({ stabilising })}
        onValue={(stabilising) => change({ stabilising })}
      />
      <div className="mt-3 flex justify-between border-t border-base-300 pt-2">
        <SignButton label={t`Another pen like it`} data-testid="add-pen" onClick={tools.addPen}>
          <PlusIcon size={18} />
        </SignButton>
        <SignButton
          label={t`Up in the tray`}
          data-testid="pen-up"
          disabled={tools.chosen === 0}
          onClick={() => tools.movePen(-1)}
        >
          <ArrowUpIcon size={18} />
        </SignButton>
        <SignButton
          label={t`Down in the tray`}
          data-testid="pen-down"
          disabled={tools.chosen === tools.tray.length - 1}
          onClick={() => tools.movePen(1)}
        >
          <ArrowDownIcon size={18} />
        </SignButton>
        <SignButton
          label={t`Take this pen out`}
          data-testid="remove-pen"
          disabled={tools.tray.length < 2}
          onClick={tools.removePen}
        >
          <TrashIcon size={18} weight="light" />
        </SignButton>
      </div>
      <Switch
        label={t`Pens for this notebook alone`}
        on={own}
        testId="own-tray"
        onChange={(on) => personal?.setTray(on ? tools.tray : undefined, notebook)}
      />
    </Unfolded>
  );
}

function KindButton({ core, kind, pen, onKind }: { core: Core; kind: PenKind; pen: Pen; onKind: () => void }) {
  const on = pen.kind === kind;
  return (
    <button
      type="button"
      aria-pressed={on}
      data-testid={`kind-${kind}`}
      onClick={onKind}
      className={`flex h-14 flex-col items-center justify-center rounded-md border text-[11px] ${on ? 'border-primary bg-base-200 font-semibold' : 'border-base-300 hover:border-primary'}`}
    >
      <PenStroke
        core={core}
        pen={{ ...newPen(kind, '#22302e'), width: Math.min(newPen(kind).width, 150) }}
        onPaper={false}
      />
      {
        {
          ball: t`Ball`,
          fountain: t`Fountain`,
          brush: t`Brush`,
          pencil: t`Pencil`,
          calligraphy: t`Calligraphy`,
          highlighter: t`Highlighter`,
        }[kind]
      }
    </button>
  );
}

/** How the pen takes pressure: what the hand does to the right, what the line does upwards. */
function ResponseCurve({ core, pen }: { core: Core; pen: Pen }) {
  const shares = Array.from(core.PenBridge.ResponseOf(penNumbers(pen)));
  return (
    <svg
      viewBox="-2 -2 104 54"
      className="mt-1 h-14 w-full rounded-md bg-base-200"
      role="img"
      aria-label={t`How the line answers to pressure`}
    >
      <path d="M0 50L100 0" className="stroke-base-300" strokeWidth="1" />
      <path
        d={`M${shares.map((share, i) => `${((i / 16) * 100).toFixed(1)} ${(50 - share * 50).toFixed(1)}`).join('L')}`}
        fill="none"
        className="stroke-primary"
        strokeWidth="2"
      />
    </svg>
  );
}

function NumberField({
  label,
  value,
  min,
  max,
  testId,
  onValue,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  testId: string;
  onValue: (value: number) => void;
}) {
  const [typed, setTyped] = useState<string>();
  const read = Number((typed ?? '').replace(',', '.'));
  const isGood = typed === undefined || (typed.trim() !== '' && read >= min && read <= max);
  const commit = () => {
    if (typed !== undefined && isGood) onValue(read);
    setTyped(undefined);
  };
  return (
    <span className="mt-1 flex items-center gap-1.5 text-[13px]">
      <input
        aria-label={label}
        aria-invalid={!isGood}
        data-testid={testId}
        inputMode="decimal"
        className="h-10 w-20 rounded-md border border-base-300 bg-base-100 px-2 text-end aria-[invalid=true]:border-error"
        value={typed ?? value.toFixed(2)}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => event.key === 'Enter' && commit()}
      />
      mm {!isGood && <span className="text-error">{t`${min} to ${max} mm`}</span>}
    </span>
  );
}
