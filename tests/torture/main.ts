import { speak } from '../../src/web/src/words/language';

// What is torn may say why, so the words are there before it.
await speak();
await import('./torture');
