import { type ReactNode, useEffect, useId, useRef } from 'react';

/** A sheet laid over the screen; closes by Escape and by a press outside. */
export function Dialog({ title, onClose, children }: { title: string; onClose: () => void; children: ReactNode }) {
  const dialog = useRef<HTMLDialogElement>(null);
  const heading = useId();
  useEffect(() => {
    const element = dialog.current!;
    element.showModal();
    return () => element.close();
  }, []);
  return (
    <dialog
      ref={dialog}
      aria-labelledby={heading}
      className="m-auto w-[440px] max-w-[calc(100vw-32px)] rounded-sm border border-base-300 bg-base-100 p-0 text-base-content shadow-xl backdrop:bg-[#22302e]/35"
      onCancel={(event) => {
        event.preventDefault();
        onClose();
      }}
      onPointerDown={(event) => event.target === dialog.current && onClose()}
    >
      <div className="p-6">
        <h2 id={heading} className="mb-4 text-[22px]">
          {title}
        </h2>
        {children}
      </div>
    </dialog>
  );
}

/** The row of buttons at a dialog's foot. */
export function DialogButtons({ confirm, onClose, disabled }: { confirm: string; onClose: () => void; disabled?: boolean }) {
  return (
    <div className="mt-6 flex justify-end gap-2">
      <button type="button" className="quiet-button" onClick={onClose}>
        Cancel
      </button>
      <button type="submit" className="btn btn-primary h-10 min-h-10" disabled={disabled} data-testid="dialog-confirm">
        {confirm}
      </button>
    </div>
  );
}
