/** What the page begins with: the language first, then all that says a word. */
import './app/fonts.css';
import { spoken } from './i18n';

void spoken.then(() => import('./start'));
