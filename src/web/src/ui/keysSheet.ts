import { onOff } from './onOff';

/** Shows the sheet of keys, or puts it away. */
export const { turn: openKeys, useIsOn: useKeysOpen } = onOff();
