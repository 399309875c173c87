import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/literata';
import { speak } from './words/language';
import { applyTheme } from './ui/theme';
import './styles.css';

applyTheme();
// Whatever is loaded after this finds its words.
await speak();
await import('./start');
