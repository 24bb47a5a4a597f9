// Before each file of tests: requests go to the server of the tests, and nothing is kept from one test to the next.
import { afterEach } from 'vitest';

import { answered, clear } from './server';

globalThis.fetch = answered;

afterEach(clear);
