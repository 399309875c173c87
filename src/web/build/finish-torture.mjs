// After vite: lays the WebAssembly build beside the tortured front end.
import { cpSync } from 'node:fs';
import { join } from 'node:path';
import { coreFolder, corePublished } from './identity.mjs';

const dist = new URL('../dist-torture', import.meta.url).pathname;
cpSync(corePublished, join(dist, coreFolder), { recursive: true, filter: (file) => !file.endsWith('.gz') });
