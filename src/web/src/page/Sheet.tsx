import { ArrowClockwiseIcon, ArrowCounterClockwiseIcon, CornersInIcon, MinusIcon, PlusIcon } from '@phosphor-icons/react';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import type { Member } from '../group/usePeople';
import type { Space } from '../session/session';
import type { OpenDocument } from '../sync/openDocument';
import { useDocument, useWorkspace } from '../sync/workspace';
import { SheetDesk } from './ink/desk';
import type { PenSign } from './ink/othersInk';
import { trueScale, type View } from './ink/view';
import { PenSigns } from './PenSigns';
import { PenTray } from './PenTray';
import type { Tools } from './useTools';

interface SheetProps {
  space: Space;
  page: string;
  paper: string;
  people: Member[];
  tools: Tools;
  /** Whether the tray lies beside this sheet, and keys act on it: of two sheets, it is the one touched last. */
  active: boolean;
  tray: boolean;
  onPresent: (people: string[]) => void;
}

const trayRoom = 116;
const sideRoom = 84;

/** The sheet on the desk, with the tray on one side and what undoes and scales on the other. */
export function Sheet(props: SheetProps) {
  const document = useDocument(props.space.id, 'page', props.page);
  return document ? <OpenSheet {...props} document={document} /> : <div className="grow bg-desk" aria-busy="true" />;
}

function OpenSheet({ space, paper, people, tools, active, tray, onPresent, document }: SheetProps & { document: OpenDocument }) {
  const { core, live } = useWorkspace();
  const mayWrite = space.role !== 'reader';
  const holder = useRef<HTMLDivElement>(null);
  const [desk, setDesk] = useState<SheetDesk>();
  const [view, setView] = useState<View>({ scale: 0, x: 0, y: 0 });
  const [signs, setSigns] = useState<PenSign[]>([]);
  const begin = useRef(tools.fold);
  begin.current = tools.fold;

  useEffect(() => {
    const made = new SheetDesk(holder.current!, core, document, live, paper, mayWrite, { left: mayWrite && tray ? trayRoom : 0, right: sideRoom });
    made.onView = setView;
    made.onBegin = () => begin.current();
    made.others.onSigns = setSigns;
    document.onPresent = onPresent;
    setView(made.currentView);
    setDesk(made);
    return () => {
      document.onPresent = undefined;
      made.stop();
    };
  }, [core, document, live, paper, mayWrite, tray, onPresent]);

  useEffect(() => {
    if (desk) desk.tool = tools.tool;
  });

  const steps = core.PageBridge.Steps(document.handle);
  const undo = () => document.perform((handle, now) => core.PageBridge.Undo(handle, now));
  const redo = () => document.perform((handle, now) => core.PageBridge.Redo(handle, now));

  useEffect(() => {
    if (!mayWrite || !active) return;
    const key = (event: KeyboardEvent) => {
      if (event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement || event.altKey) return;
      const command = event.ctrlKey || event.metaKey;
      if (command && event.key.toLowerCase() === 'z') (event.shiftKey ? redo : undo)();
      else if (command && event.key.toLowerCase() === 'y') redo();
      else if (!command && event.key >= '1' && event.key <= String(tools.tray.length)) tools.choose(Number(event.key) - 1);
      else if (!command && event.key === 'e') tools.toggleEraser();
      else return;
      event.preventDefault();
    };
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  });

  return (
    <div className="relative min-h-0 grow overflow-hidden bg-desk">
      <div
        ref={holder}
        role="application"
        aria-label={mayWrite ? 'Sheet. Write with a pen, a finger or the mouse.' : 'Sheet'}
        data-testid="sheet"
        data-view={`${view.scale} ${view.x} ${view.y}`}
        className={`absolute inset-0 touch-none select-none ${mayWrite ? 'cursor-crosshair' : 'cursor-grab'}`}
      />
      <PenSigns signs={signs} view={view} people={people} />
      {mayWrite && tray && (
        <PenTray core={core} tray={tools.tray} chosen={tools.chosen} eraser={tools.eraser} unfolded={tools.unfolded} onChoose={tools.press} onPen={tools.changePen} onEraser={tools.changeEraser} />
      )}
      <div className="absolute right-4 top-4 flex flex-col gap-1.5">
        {mayWrite && (
          <>
            <Side label="Undo" testId="undo" icon={<ArrowCounterClockwiseIcon size={20} weight="light" />} disabled={(steps & 1) === 0} onPress={undo} />
            <Side label="Redo" testId="redo" icon={<ArrowClockwiseIcon size={20} weight="light" />} disabled={(steps & 2) === 0} onPress={redo} />
          </>
        )}
        <Side label="Larger" testId="zoom-in" icon={<PlusIcon size={20} weight="light" />} onPress={() => desk?.zoomBy(1.25)} />
        <Side label="Smaller" testId="zoom-out" icon={<MinusIcon size={20} weight="light" />} onPress={() => desk?.zoomBy(0.8)} />
        <Side label="Fit" testId="zoom-fit" icon={<CornersInIcon size={20} weight="light" />} onPress={() => desk?.fit()} />
        <p className="text-center text-xs text-quiet" role="status">
          {Math.round((view.scale / trueScale) * 100)} %
        </p>
      </div>
    </div>
  );
}

function Side({ label, icon, testId, disabled, onPress }: { label: string; icon: ReactNode; testId: string; disabled?: boolean; onPress: () => void }) {
  return (
    <button
      type="button"
      data-testid={testId}
      disabled={disabled}
      onClick={onPress}
      className="flex h-[50px] w-[58px] flex-col items-center justify-center gap-0.5 rounded-md border border-base-300 bg-base-200 text-xs enabled:hover:border-primary disabled:text-quiet/60"
    >
      {icon}
      {label}
    </button>
  );
}
