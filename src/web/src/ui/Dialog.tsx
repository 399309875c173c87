import { type ReactNode, useId } from 'react';
import { createPortal } from 'react-dom';
import { useModal } from './useModal';

/** A sheet laid over the screen; closes by Escape and by a press outside. */
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
  const modal = useModal(onClose);
  const heading = useId();
  // Beside everything else in the document, so that a dialogue opened from a form is not inside it.
  return createPortal(
    <dialog
      {...modal}
      aria-labelledby={heading}
      className={`m-auto ${wide ? 'w-[980px]' : 'w-[440px]'} max-w-[calc(100vw-32px)] rounded-sm border border-base-300 bg-base-100 p-0 text-base-content shadow-xl backdrop:bg-[#22302e]/35`}
    >
      <div className="p-6">
        <h2 id={heading} className="mb-4 text-[22px]">
          {title}
        </h2>
        {children}
      </div>
    </dialog>,
    document.body,
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
      <button type="button" className="quiet-button" onClick={onClose}>
        Cancel
      </button>
      <button type="submit" className="btn btn-primary h-11 min-h-11" disabled={disabled} data-testid="dialog-confirm">
        {confirm}
      </button>
    </div>
  );
}
