import {
  ArrowLineDownIcon,
  EraserIcon,
  FilmStripIcon,
  FlagPennantIcon,
  HandIcon,
  LassoIcon,
  MagnifyingGlassPlusIcon,
  PaintBucketIcon,
  PlusIcon,
  RulerIcon,
  SelectionIcon,
  ShapesIcon,
  StackIcon,
  TextColumnsIcon,
} from '@phosphor-icons/react';
import type { ReactNode } from 'react';
import type { Core } from '../../core/runtime';
import type { Member } from '../../data/usePeople';
import { type MarkKind, MarkSign } from '../../spots/markKinds';
import type { OpenDocument } from '../../sync/openDocument';
import { describePen } from '../../model/pens';
import type { HeldKind, Panel, Tools } from './useTools';
import { GuideSettings } from './GuideSettings';
import { LayersPanel } from './LayersPanel';
import { PenSettings } from './PenSettings';
import { PenStroke } from './PenStroke';
import { EraserSettings, FillSettings, HandPanel, LoopSettings, RoomSettings, ShapeSettings } from './ToolSettings';
import { Unfolded } from './Unfolded';

interface PenTrayProps {
  core: Core;
  tools: Tools;
  notebook: string;
  page: OpenDocument;
  kinds: MarkKind[];
  /** The middle of what is seen of the page, for what is laid down there. */
  middle: () => { x: number; y: number };
  people: Member[];
  onNewKind: () => void;
  onAll: () => void;
  onPaste: () => void;
  onClear: () => void;
}

const icon = { size: 20, weight: 'light' } as const;

/** The pens as strokes of themselves, and the other tools; pressing the one in the hand again unfolds its settings beside it. */
export function PenTray(props: PenTrayProps) {
  const { core, tools, page, people, middle } = props;
  const { tray, chosen, held, settings } = tools;
  return (
    <div
      className={`in-full-put-away absolute top-4 flex ${tools.loupe ? 'bottom-[204px]' : 'bottom-4'} items-start gap-3 [pointer-events:none] [&>*]:[pointer-events:auto] ${settings.leftHanded ? 'right-4 flex-row-reverse' : 'left-4'}`}
      data-testid="pen-tray"
    >
      <div
        role="toolbar"
        aria-label="Pen tray"
        aria-orientation="vertical"
        className="flex max-h-full w-[92px] flex-col items-center overflow-y-auto rounded-lg border border-base-300 bg-base-200 px-1 py-1.5"
      >
        <div className="flex min-h-[92px] w-full shrink flex-col items-center overflow-y-auto">
          {tray.map((pen, i) => {
            const inHand = i === chosen && held === 'pen';
            return (
              <button
                key={i}
                type="button"
                aria-pressed={inHand}
                aria-label={`Pen ${i + 1}: ${describePen(pen)}`}
                title={describePen(pen)}
                data-testid={`pen-${i + 1}`}
                onClick={() => tools.press(i)}
                className={`flex h-11 w-[76px] shrink-0 items-center gap-1 rounded-md border-[1.5px] pl-1 ${inHand ? 'border-primary bg-paper' : 'border-transparent hover:border-base-300'}`}
              >
                <span className={`w-2.5 text-[11px] ${inHand ? 'text-[#625f54]' : 'text-quiet'}`}>{i + 1}</span>
                <PenStroke core={core} pen={pen} onPaper={inHand} />
              </button>
            );
          })}
        </div>
        <hr className="my-1 w-[76px] shrink-0 border-base-300" />
        <div className="grid shrink-0 grid-cols-2">
          <ToolButton kind="eraser" label="Eraser" icon={<EraserIcon {...icon} />} tools={tools} />
          <ToolButton
            kind="loop"
            label={tools.loop.box ? 'Box' : 'Loop'}
            icon={tools.loop.box ? <SelectionIcon {...icon} /> : <LassoIcon {...icon} />}
            tools={tools}
          />
          <ToolButton kind="shape" label="Shape" icon={<ShapesIcon {...icon} />} tools={tools} />
          <ToolButton kind="fill" label="Fill" icon={<PaintBucketIcon {...icon} />} tools={tools} />
          <ToolButton kind="room" label="Room" title="Make room" icon={<ArrowLineDownIcon {...icon} />} tools={tools} />
          <ToolButton kind="mark" label="Mark" icon={<FlagPennantIcon {...icon} />} tools={tools} />
          <ToolButton kind="curtain" label="Curtain" icon={<TextColumnsIcon {...icon} />} tools={tools} />
          <PanelButton
            panel="guide"
            label="Ruler"
            icon={<RulerIcon {...icon} />}
            tools={tools}
            on={tools.guide !== undefined}
          />
          <PanelButton panel="layers" label="Layers" icon={<StackIcon {...icon} />} tools={tools} />
          <Plain
            label="Loupe"
            testId="tool-loupe"
            icon={<MagnifyingGlassPlusIcon {...icon} />}
            on={tools.loupe}
            onPress={() => tools.setLoupe(!tools.loupe)}
          />
          <Plain
            label="Retrace"
            testId="tool-retrace"
            icon={<FilmStripIcon {...icon} />}
            on={tools.retrace}
            onPress={() => tools.setRetrace(!tools.retrace)}
          />
          <PanelButton panel="hand" label="Hand" title="Pen and finger" icon={<HandIcon {...icon} />} tools={tools} />
        </div>
      </div>
      {tools.panel === 'layers' && <LayersPanel core={core} tools={tools} page={page} people={people} />}
      {tools.panel === 'guide' && <GuideSettings tools={tools} middle={middle} />}
      {tools.panel === 'hand' && <HandPanel tools={tools} />}
      {!tools.panel && tools.unfolded && <Settings {...props} />}
      {!tools.panel && !tools.unfolded && hints[held] && (
        <p role="status" className="rounded-lg border border-base-300 bg-base-100 px-3 py-2 text-[13px] text-quiet">
          {hints[held]}
        </p>
      )}
    </div>
  );
}

const hints: Partial<Record<HeldKind, string>> = {
  pick: 'Press on ink to take its colour.',
  curtain: 'Drag a cloth over what is to be hidden.',
};

function Settings({ core, tools, notebook, kinds, onNewKind, onAll, onPaste, onClear }: PenTrayProps) {
  switch (tools.held) {
    case 'pen':
      return <PenSettings core={core} tools={tools} notebook={notebook} />;
    case 'eraser':
      return <EraserSettings tools={tools} onClear={onClear} />;
    case 'loop':
      return <LoopSettings tools={tools} onAll={onAll} onPaste={onPaste} />;
    case 'shape':
      return <ShapeSettings tools={tools} />;
    case 'fill':
      return <FillSettings tools={tools} />;
    case 'room':
      return <RoomSettings tools={tools} />;
    case 'mark':
      return <MarkSettings mark={tools.mark} kinds={kinds} onMark={tools.changeMark} onNewKind={onNewKind} />;
    default:
      return null;
  }
}

function ToolButton({
  kind,
  label,
  title,
  icon,
  tools,
}: {
  kind: HeldKind;
  label: string;
  title?: string;
  icon: ReactNode;
  tools: Tools;
}) {
  return (
    <Plain
      label={label}
      {...(title ? { title } : {})}
      testId={`tool-${kind}`}
      icon={icon}
      on={tools.held === kind}
      onPress={() => tools.pressTool(kind)}
    />
  );
}

function PanelButton({
  panel,
  label,
  title,
  icon,
  tools,
  on = false,
}: {
  panel: Panel;
  label: string;
  title?: string;
  icon: ReactNode;
  tools: Tools;
  on?: boolean;
}) {
  return (
    <Plain
      label={label}
      {...(title ? { title } : {})}
      testId={`tool-${panel}`}
      icon={icon}
      on={on || tools.panel === panel}
      onPress={() => tools.togglePanel(panel)}
    />
  );
}

function Plain({
  label,
  title,
  icon,
  testId,
  on,
  onPress,
}: {
  label: string;
  title?: string;
  icon: ReactNode;
  testId: string;
  on: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      title={title ?? label}
      data-testid={testId}
      onClick={onPress}
      className={`flex h-[46px] w-[41px] flex-col items-center justify-center gap-px rounded-md border-[1.5px] text-[11px] leading-none ${on ? 'border-primary bg-base-100' : 'border-transparent hover:border-base-300'}`}
    >
      {icon}
      {label}
    </button>
  );
}

function MarkSettings({
  mark,
  kinds,
  onMark,
  onNewKind,
}: {
  mark: string;
  kinds: MarkKind[];
  onMark: (mark: string) => void;
  onNewKind: () => void;
}) {
  return (
    <Unfolded title="Mark" testId="mark-settings" hint="Press on the page where it belongs.">
      <div className="-mx-2 mt-1">
        {kinds.map((kind) => (
          <button
            key={kind.id}
            type="button"
            aria-pressed={mark === kind.id}
            data-testid="mark-kind"
            data-name={kind.words}
            onClick={() => onMark(kind.id)}
            className={`flex h-11 w-full items-center gap-2.5 rounded-md px-2 text-left ${mark === kind.id ? 'bg-base-200 font-semibold' : 'hover:bg-base-200'}`}
          >
            <MarkSign kind={kind} full={mark === kind.id} />
            <span className="truncate">{kind.words}</span>
          </button>
        ))}
        <button
          type="button"
          className="flex h-11 w-full items-center gap-2.5 rounded-md px-2 text-left text-quiet hover:bg-base-200"
          data-testid="new-mark-kind"
          onClick={onNewKind}
        >
          <span className="grid size-[26px] place-items-center">
            <PlusIcon size={18} />
          </span>
          A kind of your own
        </button>
      </div>
    </Unfolded>
  );
}
