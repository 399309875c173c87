import type { RolldownBabelPreset } from '@rolldown/plugin-babel';

export const words: RolldownBabelPreset;
