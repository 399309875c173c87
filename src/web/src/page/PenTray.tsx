import { EraserIcon, FlagPennantIcon, LassoIcon, PlusIcon, SelectionIcon } from '@phosphor-icons/react';
import { type ReactNode, useMemo } from 'react';
import type { Core } from '../core/runtime';
import { outlineToSvg } from './ink/packet';
import { type MarkKind, MarkSign } from '../spots/markKinds';
import { inks, type Pen, type PenKind, penKindNumbers, penNames } from './ink/pens';
import type { HeldKind, Tools } from './useTools';

interface PenTrayProps {
  core: Core;
  tools: Tools;
  kinds: MarkKind[];
  onNewKind: () => void;
}

/** The pens as strokes of themselves, and the other tools; pressing the one in the hand again unfolds its settings beside it. */
export function PenTray({ core, tools, kinds, onNewKind }: PenTrayProps) {
  const { tray, chosen, held } = tools;
  return (
    <div className="absolute bottom-4 left-4 top-4 flex items-start gap-3 [pointer-events:none] [&>*]:[pointer-events:auto]" data-testid="pen-tray">
      <div role="toolbar" aria-label="Pen tray" aria-orientation="vertical" className="flex max-h-full w-[92px] flex-col items-center gap-0.5 overflow-y-auto rounded-lg border border-base-300 bg-base-200 px-1.5 py-2">
        {tray.map((pen, i) => {
          const inHand = i === chosen && held === 'pen';
          return (
            <button
              key={i}
              type="button"
              aria-pressed={inHand}
              aria-label={`Pen ${i + 1}: ${describe(pen)}`}
              title={describe(pen)}
              data-testid={`pen-${i + 1}`}
              onClick={() => tools.press(i)}
              className={`flex h-11 w-[76px] shrink-0 items-center gap-1.5 rounded-md border-[1.5px] pl-1.5 ${inHand ? 'border-primary bg-paper' : 'border-transparent hover:border-base-300'}`}
            >
              <span className={`w-2 text-[11px] ${inHand ? 'text-[#625f54]' : 'text-quiet'}`}>{i + 1}</span>
              <PenStroke core={core} pen={pen} onPaper={inHand} />
            </button>
          );
        })}
        <hr className="my-1.5 w-[68px] border-base-300" />
        <ToolButton kind="eraser" label="Eraser" icon={<EraserIcon size={22} weight="light" />} tools={tools} />
        <ToolButton kind="loop" label={tools.loop.box ? 'Box' : 'Loop'} icon={tools.loop.box ? <SelectionIcon size={22} weight="light" /> : <LassoIcon size={22} weight="light" />} tools={tools} />
        <ToolButton kind="mark" label="Mark" icon={<FlagPennantIcon size={22} weight="light" />} tools={tools} />
      </div>
      {tools.unfolded && held === 'pen' && <PenSettings pen={tray[chosen]!} number={chosen + 1} onPen={tools.changePen} />}
      {tools.unfolded && held === 'eraser' && <EraserSettings eraser={tools.eraser} onEraser={tools.changeEraser} />}
      {tools.unfolded && held === 'loop' && <LoopSettings loop={tools.loop} onLoop={tools.changeLoop} />}
      {tools.unfolded && held === 'mark' && <MarkSettings mark={tools.mark} kinds={kinds} onMark={tools.changeMark} onNewKind={onNewKind} />}
    </div>
  );
}

function ToolButton({ kind, label, icon, tools }: { kind: HeldKind; label: string; icon: ReactNode; tools: Tools }) {
  const inHand = tools.held === kind;
  return (
    <button type="button" aria-pressed={inHand} data-testid={`tool-${kind}`} onClick={() => tools.pressTool(kind)} className={`flex h-[50px] w-[76px] shrink-0 flex-col items-center justify-center gap-0.5 rounded-md border-[1.5px] text-xs ${inHand ? 'border-primary bg-base-100' : 'border-transparent hover:border-base-300'}`}>
      {icon}
      {label}
    </button>
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

function EraserSettings({ eraser, onEraser }: { eraser: Tools['eraser']; onEraser: (change: Partial<Tools['eraser']>) => void }) {
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

function LoopSettings({ loop, onLoop }: { loop: Tools['loop']; onLoop: (change: Partial<Tools['loop']>) => void }) {
  return (
    <section aria-label="Settings of selecting" data-testid="loop-settings" className="mt-48 w-[214px] rounded-lg border border-base-300 bg-base-100 p-4 shadow-sm">
      <h2 className="text-[16px]">Select</h2>
      <div className="mt-2.5 flex gap-1.5">
        <button type="button" aria-pressed={!loop.box} onClick={() => onLoop({ box: false })} className={choice(!loop.box)}>
          Loop
        </button>
        <button type="button" aria-pressed={loop.box} data-testid="select-box" onClick={() => onLoop({ box: true })} className={choice(loop.box)}>
          Box
        </button>
      </div>
      <label className="mt-3 block">
        <span className="flex justify-between">
          Takes what is inside <span className="text-[13px] text-quiet">{Math.round(loop.share * 100)} %</span>
        </span>
        <input type="range" min={5} max={100} step={5} value={loop.share * 100} onChange={(event) => onLoop({ share: Number(event.target.value) / 100 })} className="range range-primary range-xs mt-1 w-full" />
      </label>
    </section>
  );
}

function MarkSettings({ mark, kinds, onMark, onNewKind }: { mark: string; kinds: MarkKind[]; onMark: (mark: string) => void; onNewKind: () => void }) {
  return (
    <section aria-label="Kinds of marks" data-testid="mark-settings" className="mt-40 max-h-[calc(100%-170px)] w-[214px] overflow-y-auto rounded-lg border border-base-300 bg-base-100 p-3 shadow-sm">
      <h2 className="px-1 text-[16px]">Mark</h2>
      <p className="px-1 pb-1 text-[13px] text-quiet">Press on the page where it belongs.</p>
      {kinds.map((kind) => (
        <button key={kind.id} type="button" aria-pressed={mark === kind.id} data-testid="mark-kind" data-name={kind.words} onClick={() => onMark(kind.id)} className={`flex h-11 w-full items-center gap-2.5 rounded-md px-2 text-left ${mark === kind.id ? 'bg-base-200 font-semibold' : 'hover:bg-base-200'}`}>
          <MarkSign kind={kind} full={mark === kind.id} />
          <span className="truncate">{kind.words}</span>
        </button>
      ))}
      <button type="button" className="flex h-11 w-full items-center gap-2.5 rounded-md px-2 text-left text-quiet hover:bg-base-200" data-testid="new-mark-kind" onClick={onNewKind}>
        <span className="grid size-[26px] place-items-center">
          <PlusIcon size={18} />
        </span>
        A kind of your own
      </button>
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
