import { onOff } from './onOff';

/** Has the rail back where it is folded away, or folds it again. */
export const { turn: openRail, useIsOn: useRailOpen } = onOff();
