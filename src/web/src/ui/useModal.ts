import { type PointerEvent, type SyntheticEvent, useLayoutEffect, useRef } from 'react';

/** What a dialog element is given to lie over everything as long as it is there, and to be closed by Escape and by a press outside. */
export function useModal(onClose: () => void) {
  const dialog = useRef<HTMLDialogElement>(null);
  // Closed before it is taken out of the document, so that the browser gives the focus back to where it was.
  useLayoutEffect(() => {
    const element = dialog.current!;
    element.showModal();
    return () => element.close();
  }, []);
  return {
    ref: dialog,
    onCancel: (event: SyntheticEvent) => {
      event.preventDefault();
      onClose();
    },
    onPointerDown: (event: PointerEvent) => {
      if (event.target === dialog.current) onClose();
    },
  };
}
