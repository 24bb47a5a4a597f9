// The parts of the page that are loaded as they are needed, by the place that shows them.
import type { StopName } from './shipment/stops';

/** Loads a part. */
type Load = () => Promise<unknown>;

export const BENCH: Load = () => import('./places/BenchPlace.vue');
/** What stands around every stop of a shipment. */
export const SHIPMENT: Load = () => import('./places/ShipmentPlace.vue');
export const ONE_PAGE: Load = () => import('./stops/short/ShortWay.vue');
export const STOP_PAGES: Record<StopName, Load> = {
  measure: () => import('./stops/measure/MeasureStop.vue'),
  guard: () => import('./stops/guard/GuardStop.vue'),
  box: () => import('./stops/box/BoxStop.vue'),
  price: () => import('./stops/price/PriceStop.vue'),
  pack: () => import('./stops/pack/PackStop.vue'),
  weigh: () => import('./stops/weigh/WeighStop.vue'),
  send: () => import('./stops/send/SendStop.vue'),
  after: () => import('./stops/after/AfterStop.vue'),
};

/** What an address needs first: parts of the page, and what they read. */
export interface Needs {
  parts: Load[];
  reads: string[];
}

/** What the bench reads where nothing is sought and nothing is sorted otherwise. */
const FIRST_ROWS = '/api/v1/shipments?place=bench&search=&sort=promised&without=section';

const isStop = (name: string): name is StopName => Object.hasOwn(STOP_PAGES, name);

/** Returns what an address needs, as far as it is worth asking for before the program itself is there. */
export function needsOf(path: string, query: string): Needs {
  const reads = ['/api/v1/studio'];
  if (path === '/') {
    if (!query) reads.push(FIRST_ROWS);
    return { parts: [BENCH], reads };
  }
  const [, place, id = '', page = ''] = path.split('/');
  if (place !== 'shipments') return { parts: [], reads };
  if (id === 'new') return { parts: [SHIPMENT, ONE_PAGE], reads };
  reads.push(`/api/v1/shipments/${id}`);
  if (page === 'short') return { parts: [SHIPMENT, ONE_PAGE], reads };
  return { parts: isStop(page) ? [SHIPMENT, STOP_PAGES[page]] : [SHIPMENT], reads };
}
