import { t } from '@lingui/core/macro';
import { ArrowsOutIcon, BookOpenIcon, NoteBlankIcon, PencilLineIcon } from '@phosphor-icons/react';
import type { Blotter } from '../sheet/blotter/blotter';
import type { Tools } from '../sheet/hand/tool';
import { HeaderButton } from './HeaderButton';
import { ZoomControl } from './ZoomControl';

interface SheetControlsProps {
  /** Whether the hand writes on the person's own sheet over the page. */
  onAside: boolean;
  onToggleAside: () => void;
  blotter: Blotter | undefined;
  scale: number;
  tools: Tools;
  mayWrite: boolean;
  reading: boolean;
  onFull: () => void;
}

/** What stands in the line above of how the sheet is seen: its scale, reading or writing, the whole screen. */
export function SheetControls(props: SheetControlsProps) {
  const { blotter, scale, tools, mayWrite, reading, onAside, onToggleAside, onFull } = props;
  return (
    <>
      <ZoomControl blotter={blotter} scale={scale} locked={tools.zoomLocked} onLock={tools.setZoomLocked} />
      <HeaderButton
        without="narrow"
        label={onAside ? t`Put your aside out of the hand` : t`Write on your aside, which only you see`}
        testId="aside-toggle"
        pressed={onAside}
        icon={<NoteBlankIcon size={22} weight="light" />}
        onPress={onToggleAside}
      />
      {mayWrite && (
        <HeaderButton
          label={reading ? t`Write` : t`Read`}
          testId="read-mode"
          icon={reading ? <PencilLineIcon size={22} weight="light" /> : <BookOpenIcon size={22} weight="light" />}
          onPress={() => tools.setReading(!tools.reading)}
        />
      )}
      <HeaderButton
        without="narrow"
        label={t`Full view`}
        testId="full-view"
        icon={<ArrowsOutIcon size={22} weight="light" />}
        onPress={onFull}
      />
    </>
  );
}
