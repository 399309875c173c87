import { t } from '@lingui/core/macro';

/** What is said aloud while something is carried, and how it is done with keys. */
export const carryWords = {
  screenReaderInstructions: {
    draggable: t`Space takes it up. Arrow keys carry it, Space lays it down, Escape lets it go.`,
  },
  announcements: {
    onDragStart: () => t`Taken up.`,
    onDragOver: ({ over }: { over: unknown }) => (over ? t`Over a place where it can lie.` : t`Over no place.`),
    onDragEnd: ({ over }: { over: unknown }) => (over ? t`Laid down.` : t`Let go.`),
    onDragCancel: () => t`Let go.`,
  },
};
