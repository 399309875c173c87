import { EraserIcon, FlagPennantIcon, LinkIcon, LinkSimpleIcon, ListPlusIcon, XIcon } from '@phosphor-icons/react';
import type { ReactNode } from 'react';
import type { Taken } from './ink/desk';
import type { View } from './ink/view';

interface SelectionBarProps {
  taken: Taken;
  view: View;
  onLink: () => void;
  onMark: () => void;
  onHeading: () => void;
  onCopyLink: () => void;
  onErase: () => void;
  onClose: () => void;
}

/** What was taken, in a dashed frame, and what can be made of it. */
export function SelectionBar({ taken, view, onLink, onMark, onHeading, onCopyLink, onErase, onClose }: SelectionBarProps) {
  const [left, top, right, bottom] = taken.area;
  const box = { left: left * view.scale + view.x - 6, top: top * view.scale + view.y - 6, width: (right - left) * view.scale + 12, height: (bottom - top) * view.scale + 12 };
  return (
    <div className="pointer-events-none absolute inset-0 z-10 overflow-hidden" data-testid="selection" data-items={taken.items.length}>
      <div className="absolute rounded-sm border-[1.5px] border-dashed border-[#4f7388]" style={box} />
      <div role="toolbar" aria-label="What was selected" className="pointer-events-auto absolute flex rounded-lg border border-base-300 bg-base-100 p-1 shadow-md" style={{ left: `max(8px, min(${box.left}px, calc(100% - 430px)))`, top: box.top > 70 ? box.top - 62 : box.top + box.height + 10 }}>
        <Press label="Link" testId="make-link" icon={<LinkIcon size={20} weight="light" />} onPress={onLink} />
        <Press label="Mark" testId="make-mark" icon={<FlagPennantIcon size={20} weight="light" />} onPress={onMark} />
        {taken.items.length > 0 && <Press label="Contents" testId="make-heading" icon={<ListPlusIcon size={20} weight="light" />} onPress={onHeading} />}
        <Press label="Copy link" testId="copy-link" icon={<LinkSimpleIcon size={20} weight="light" />} onPress={onCopyLink} />
        {taken.items.length > 0 && <Press label="Erase" testId="erase-taken" icon={<EraserIcon size={20} weight="light" />} onPress={onErase} />}
        <Press label="Leave" testId="leave-taken" icon={<XIcon size={18} />} onPress={onClose} />
      </div>
    </div>
  );
}

function Press({ label, icon, testId, onPress }: { label: string; icon: ReactNode; testId: string; onPress: () => void }) {
  return (
    <button type="button" data-testid={testId} className="flex h-11 min-w-[58px] flex-col items-center justify-center rounded-md px-2 text-xs hover:bg-base-200" onClick={onPress}>
      {icon}
      {label}
    </button>
  );
}
