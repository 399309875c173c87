import { Button } from './Button';
import { t } from '@lingui/core/macro';
import { Dialog as Modal } from '@base-ui/react/dialog';
import type { ComponentProps, ReactNode } from 'react';
import { layers } from './layers';
import { useGivingBack } from './useGivingBack';

/** A sheet laid over the screen; closes by Escape and by a press outside, and gives the focus back to where it was. */
export function Dialog({
  title,
  onClose,
  children,
  wide,
}: {
  title: string;
  onClose: () => void;
  children: ReactNode;
  wide?: boolean;
}) {
  return (
    <Over
      onClose={onClose}
      className={`inset-0 m-auto h-fit max-h-[calc(100dvh-32px)] overflow-y-auto ${wide ? 'w-[980px]' : 'w-[440px]'} max-w-[calc(100vw-32px)] rounded-sm border border-base-300 bg-base-100 p-6 shadow-xl`}
    >
      <Modal.Title className="mb-4 text-[22px]">{title}</Modal.Title>
      {children}
    </Over>
  );
}

/** Something that comes out at the side, over the screen, until one is done with it. */
export function Drawer({
  label,
  testId,
  onClose,
  children,
}: {
  label: string;
  testId: string;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Over aria-label={label} data-testid={testId} onClose={onClose} className="inset-y-0 start-0">
      {children}
    </Over>
  );
}

/** What lies over the dimmed screen as long as it is there. */
function Over({ onClose, className, ...rest }: ComponentProps<'div'> & { onClose: () => void }) {
  const giveBack = useGivingBack();
  return (
    <Modal.Root open onOpenChange={(open) => !open && onClose()}>
      <Modal.Portal>
        <Modal.Backdrop className={`fixed inset-0 bg-[#22302e]/35 ${layers.dialog}`} />
        <Modal.Popup
          {...rest}
          finalFocus={giveBack}
          className={`fixed text-base-content outline-none ${layers.dialog} ${className}`}
        />
      </Modal.Portal>
    </Modal.Root>
  );
}

/** The row of buttons at a dialog's foot. */
export function DialogButtons({
  confirm,
  onClose,
  disabled,
}: {
  confirm: string;
  onClose: () => void;
  disabled?: boolean;
}) {
  return (
    <div className="mt-6 flex justify-end gap-2">
      <Button onClick={onClose}>{t`Cancel`}</Button>
      <Button look="primary" type="submit" disabled={disabled} data-testid="dialog-confirm">
        {confirm}
      </Button>
    </div>
  );
}
