// The first file of the page. On a slow line each file that asks for another costs a way there and back: the program, the place that the
// address names and what that place reads are all asked for at once.
import './styles/main.scss';

import { askAhead } from './api/ahead';
import { needsOf } from './parts';

const { parts, reads } = needsOf(location.pathname, location.search);
askAhead(reads);
// One that can't be loaded is told of by whatever shows it.
for (const load of parts) load().catch(() => undefined);
void import('./app');
