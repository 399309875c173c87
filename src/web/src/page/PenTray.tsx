import { EraserIcon } from '@phosphor-icons/react';
import { useMemo } from 'react';
import type { Core } from '../core/runtime';
import { outlineToSvg } from './ink/packet';
import { inks, type Pen, type PenKind, penKindNumbers, penNames } from './ink/pens';

interface EraserState {
  on: boolean;
  whole: boolean;
  /** Diameter, 0.01 mm. */
  size: number;
}

interface PenTrayProps {
  core: Core;
  tray: Pen[];
  chosen: number;
  eraser: EraserState;
  unfolded: boolean;
  onChoose: (index: number) => void;
  onPen: (pen: Pen) => void;
  onEraser: (change: Partial<EraserState>) => void;
}

/** The pens as strokes of themselves; pressing the chosen one again unfolds its settings beside it. */
export function PenTray({ core, tray, chosen, eraser, unfolded, onChoose, onPen, onEraser }: PenTrayProps) {
  return (
    <div className="absolute left-4 top-4 flex items-start gap-3" data-testid="pen-tray">
      <div role="toolbar" aria-label="Pen tray" aria-orientation="vertical" className="flex w-[92px] flex-col items-center gap-0.5 rounded-lg border border-base-300 bg-base-200 px-1.5 py-2">
        {tray.map((pen, i) => {
          const inHand = i === chosen && !eraser.on;
          return (
            <button
              key={i}
              type="button"
              aria-pressed={inHand}
              aria-label={`Pen ${i + 1}: ${describe(pen)}`}
              title={describe(pen)}
              data-testid={`pen-${i + 1}`}
              onClick={() => onChoose(i)}
              className={`flex h-11 w-[76px] items-center gap-1.5 rounded-md border-[1.5px] pl-1.5 ${inHand ? 'border-primary bg-paper' : 'border-transparent hover:border-base-300'}`}
            >
              <span className={`w-2 text-[11px] ${inHand ? 'text-[#625f54]' : 'text-quiet'}`}>{i + 1}</span>
              <PenStroke core={core} pen={pen} onPaper={inHand} />
            </button>
          );
        })}
        <hr className="my-1.5 w-[68px] border-base-300" />
        <button
          type="button"
          aria-pressed={eraser.on}
          data-testid="eraser"
          onClick={() => onEraser({ on: true })}
          className={`flex h-[52px] w-[76px] flex-col items-center justify-center gap-0.5 rounded-md border-[1.5px] text-xs ${eraser.on ? 'border-primary bg-base-100' : 'border-transparent hover:border-base-300'}`}
        >
          <EraserIcon size={22} weight="light" />
          Eraser
        </button>
      </div>
      {unfolded && (eraser.on ? <EraserSettings eraser={eraser} onEraser={onEraser} /> : <PenSettings pen={tray[chosen]!} number={chosen + 1} onPen={onPen} />)}
    </div>
  );
}

/** A stroke of a pen, drawn by Core's own outline, at twice its true width so that it can be told apart. */
function PenStroke({ core, pen, onPaper }: { core: Core; pen: Pen; onPaper: boolean }) {
  const path = useMemo(() => outlineToSvg(core.PageBridge.OutlineOf(penKindNumbers[pen.kind], pen.width, wave)), [core, pen.kind, pen.width]);
  return (
    <svg viewBox="-60 -260 1360 520" className={`h-9 w-[50px] ${onPaper ? '' : '[[data-theme=quill-night]_&]:brightness-[1.9]'}`} aria-hidden="true">
      <path d={path} fill={pen.colour} />
    </svg>
  );
}

const wave = Int32Array.from(
  Array.from({ length: 40 }, (_, i) => {
    const t = i / 39;
    return [t * 1240, -Math.sin(t * Math.PI * 4 - 0.6) * 120 * (1 - t * 0.15), 260 + 620 * Math.abs(Math.sin(t * Math.PI * 2 + 0.4)), i * 8, 0, 0];
  })
    .flat()
    .map(Math.round),
);

function PenSettings({ pen, number, onPen }: { pen: Pen; number: number; onPen: (pen: Pen) => void }) {
  return (
    <section aria-label={`Settings of pen ${number}`} data-testid="pen-settings" className="mt-9 w-[214px] rounded-lg border border-base-300 bg-base-100 p-4 shadow-sm">
      <div className="flex items-baseline justify-between">
        <h2 className="text-[16px]">{penNames[pen.kind]}</h2>
        <span className="text-[13px] text-quiet">pen {number}</span>
      </div>
      <div className="mt-2.5 flex gap-1.5">
        {(Object.keys(penNames) as PenKind[]).map((kind) => (
          <button key={kind} type="button" aria-pressed={pen.kind === kind} data-testid={`kind-${kind}`} onClick={() => onPen({ ...pen, kind })} className={choice(pen.kind === kind)}>
            {penNames[kind].replace(' pen', '')}
          </button>
        ))}
      </div>
      <label className="mt-3 block">
        <span className="flex justify-between">
          Width <span className="text-[13px] text-quiet">{(pen.width / 100).toFixed(2)} mm</span>
        </span>
        <input type="range" min={10} max={300} step={5} value={pen.width} data-testid="pen-width" onChange={(event) => onPen({ ...pen, width: Number(event.target.value) })} className="range range-primary range-xs mt-1 w-full" />
      </label>
      <div role="group" aria-label="Ink" className="mt-3 flex flex-wrap">
        {inks.map((ink) => (
          <button key={ink.colour} type="button" aria-label={ink.name} title={ink.name} aria-pressed={pen.colour === ink.colour} data-testid={`ink-${ink.name.toLowerCase()}`} onClick={() => onPen({ ...pen, colour: ink.colour })} className="grid size-[45px] place-items-center">
            <span className={`size-7 rounded-full ${pen.colour === ink.colour ? 'outline-2 outline-offset-2 outline-primary' : ''}`} style={{ background: ink.colour }} />
          </button>
        ))}
      </div>
    </section>
  );
}

function EraserSettings({ eraser, onEraser }: { eraser: EraserState; onEraser: (change: Partial<EraserState>) => void }) {
  return (
    <section aria-label="Settings of the eraser" data-testid="eraser-settings" className="mt-48 w-[214px] rounded-lg border border-base-300 bg-base-100 p-4 shadow-sm">
      <h2 className="text-[16px]">Eraser</h2>
      <div className="mt-2.5 flex gap-1.5">
        <button type="button" aria-pressed={!eraser.whole} data-testid="erase-part" onClick={() => onEraser({ whole: false })} className={choice(!eraser.whole)}>
          What it touches
        </button>
        <button type="button" aria-pressed={eraser.whole} data-testid="erase-whole" onClick={() => onEraser({ whole: true })} className={choice(eraser.whole)}>
          Strokes
        </button>
      </div>
      <label className="mt-3 block">
        <span className="flex justify-between">
          Size <span className="text-[13px] text-quiet">{(eraser.size / 100).toFixed(1)} mm</span>
        </span>
        <input type="range" min={30} max={2000} step={10} value={eraser.size} data-testid="eraser-size" onChange={(event) => onEraser({ size: Number(event.target.value) })} className="range range-primary range-xs mt-1 w-full" />
      </label>
    </section>
  );
}

function choice(on: boolean): string {
  return `h-10 grow rounded-md border px-2 text-[13px] ${on ? 'border-primary font-semibold' : 'border-base-300'}`;
}

function describe(pen: Pen): string {
  const ink = inks.find((one) => one.colour === pen.colour)?.name.toLowerCase() ?? 'own colour';
  return `${penNames[pen.kind]}, ${(pen.width / 100).toFixed(2)} mm, ${ink}`;
}
