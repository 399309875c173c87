import { useSyncExternalStore } from 'react';
import { fontsVersion, onFonts } from './fonts';

/** Another number whenever there are more fonts: where letters lie is to be asked anew. */
export function useFonts(): number {
  return useSyncExternalStore(onFonts, fontsVersion);
}
