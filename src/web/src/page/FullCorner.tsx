import { t } from '@lingui/core/macro';
import { ArrowsInIcon, PencilLineIcon } from '@phosphor-icons/react';
import { HeaderButton } from './HeaderButton';

/** In full view, where the page is alone: gives the tray back and takes it away, and leads back to all of it. */
export function FullCorner({
  side,
  hasTray,
  onLeave,
}: {
  side: 'left' | 'right';
  hasTray: boolean;
  onLeave: () => void;
}) {
  const toggle = () => {
    const { dataset } = document.documentElement;
    dataset.full = dataset.full === 'tray' ? '1' : 'tray';
  };
  return (
    <div
      className={`in-full-shown absolute bottom-4 z-30 gap-1 rounded-md border border-base-300 bg-base-100/80 ${side === 'right' ? 'start-4' : 'end-4'}`}
    >
      {hasTray && (
        <HeaderButton
          label={t`The tray`}
          testId="full-corner"
          icon={<PencilLineIcon size={22} weight="light" />}
          onPress={toggle}
        />
      )}
      <HeaderButton
        label={t`Leave full view`}
        testId="leave-full"
        icon={<ArrowsInIcon size={22} weight="light" />}
        onPress={onLeave}
      />
    </div>
  );
}
