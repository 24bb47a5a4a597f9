// The first file of the page. On a slow line each file that asks for another costs a way there and back: the program, the place that the
// address names and what that place reads are all asked for at once.
import './styles/main.scss';

import { needsOf } from './parts';

const { parts, reads } = needsOf(location.pathname, location.search);
for (const href of reads) {
  document.head.append(
    Object.assign(document.createElement('link'), {
      rel: 'preload',
      as: 'fetch',
      crossOrigin: 'anonymous',
      href,
    }),
  );
}
// One that can't be loaded is told of by whatever shows it.
for (const load of parts) load().catch(() => undefined);
void import('./app');
