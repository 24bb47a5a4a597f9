import { nextTick } from 'vue';
import { createRouter, createWebHistory } from 'vue-router';
import type { RouteLocation } from 'vue-router';

import { BENCH, ONE_PAGE, SHIPMENT, STOP_PAGES } from './parts';
import { PARTS } from './places/house/parts';
import { SECTIONS } from './places/studio/words';
import { beginShipment } from './shipment/begun';
import { STOPS } from './shipment/stops';

declare module 'vue-router' {
  interface RouteMeta {
    /** What the place is called. */
    title?: string;
  }
}

/** A place, or a part of it that is named. */
const within = (place: string) => (part: string) => (part ? `${place}/${part}` : place);

/** Where places stood before, and where they stand now: a link that was kept leads on. */
const MOVED: readonly (readonly [string, (rest: string) => string])[] = [
  ['/stores/:rest?', within('/materials')],
  ['/shelf', () => '/materials/in-stock'],
  ['/shelf/offcuts', () => '/materials/offcuts'],
  ['/shelf/pile', () => '/materials/cartons'],
  ['/rates/:rest?', within('/carriers')],
  ['/sums/:rest?', within('/tools/sums')],
  ['/rough', () => '/tools/rough-price'],
  ['/measuring-sheet', () => '/tools/measuring-sheet'],
  ['/tags', () => '/tools/tags'],
  ['/weighings', () => '/tools/weighings'],
  ['/cutting/:rest?', within('/tools/cutting')],
];

/** What stood below the house rules, by its place on that page. */
const FORMER: Partial<Record<string, string>> = {
  '#sender': '/studio/name',
  '#tablets': '/studio/tablets',
  '#backup': '/studio/backup',
};

export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  routes: [
    {
      path: '/',
      name: 'bench',
      meta: { title: 'Bench' },
      component: BENCH,
    },
    { path: '/shipments/new', redirect: () => `/shipments/${beginShipment()}/short` },
    { path: '/shipments/:id', redirect: (to) => `/shipments/${String(to.params.id)}/measure` },
    {
      path: '/shipments/:id',
      component: SHIPMENT,
      props: true,
      children: [
        ...STOPS.map(({ name, title }) => ({
          path: name,
          name,
          meta: { title },
          component: STOP_PAGES[name],
        })),
        {
          path: 'short',
          name: 'short',
          meta: { title: 'A parcel on one page' },
          component: ONE_PAGE,
        },
        { path: 'quick', redirect: (to) => ({ name: 'short', params: to.params }) },
        {
          path: 'ways',
          name: 'ways',
          meta: { title: 'Every way to send it' },
          component: () => import('./stops/ways/WaysPlace.vue'),
        },
        {
          path: 'wanted',
          name: 'wanted',
          meta: { title: 'Wanted: a carton' },
          component: () => import('./stops/box/WantedCard.vue'),
        },
        {
          path: 'brief',
          name: 'brief',
          meta: { title: 'Brief for a crating service' },
          component: () => import('./stops/box/BriefSheet.vue'),
        },
      ],
    },
    {
      path: '/materials/:part(in-stock|offcuts|cartons)',
      name: 'in-stock',
      meta: { title: 'Materials in stock' },
      component: () => import('./places/shelf/ShelfPlace.vue'),
      props: ({ params }) => ({ part: params.part === 'in-stock' ? '' : params.part }),
    },
    {
      path: '/materials/:shelf?',
      name: 'materials',
      meta: { title: 'Materials' },
      component: () => import('./places/stores/StoresPlace.vue'),
      props: true,
    },
    {
      path: '/carriers/:id?',
      name: 'carriers',
      meta: { title: 'Carriers' },
      component: () => import('./places/rates/RatesPlace.vue'),
      props: true,
    },
    {
      path: '/tools',
      name: 'tools',
      meta: { title: 'Tools' },
      component: () => import('./places/ToolsPlace.vue'),
    },
    {
      path: '/log',
      name: 'log',
      meta: { title: 'Log' },
      component: () => import('./places/log/LogPlace.vue'),
    },
    {
      path: '/leaving/carriers',
      name: 'with-carriers',
      meta: { title: 'Carrier bookings' },
      component: () => import('./places/leaving/CarriersPlace.vue'),
    },
    {
      path: '/leaving',
      name: 'leaving',
      meta: { title: 'Outgoing' },
      component: () => import('./places/leaving/LeavingPlace.vue'),
    },
    {
      path: '/orders',
      name: 'orders',
      meta: { title: 'Orders from a shop' },
      component: () => import('./places/orders/OrdersPlace.vue'),
    },
    {
      path: '/tools/tags',
      name: 'tags',
      meta: { title: 'Tags for wrapped pieces' },
      component: () => import('./places/TagSheet.vue'),
    },
    {
      path: '/again',
      name: 'again',
      meta: { title: 'A quick parcel' },
      component: () => import('./places/AgainPlace.vue'),
    },
    {
      path: '/tools/rough-price',
      name: 'rough',
      meta: { title: 'Price estimate' },
      component: () => import('./places/rough/RoughPlace.vue'),
    },
    {
      path: '/tools/weighings',
      name: 'weighings',
      meta: { title: 'Scale readings' },
      component: () => import('./places/weighings/WeighingsPlace.vue'),
    },
    {
      path: '/tools/cutting',
      name: 'layouts',
      meta: { title: 'Cutting plans' },
      component: () => import('./places/cutting/CuttingList.vue'),
    },
    {
      path: '/tools/cutting/blank',
      name: 'blank',
      meta: { title: 'A blank drawn elsewhere' },
      component: () => import('./places/cutting/BlankPlace.vue'),
    },
    {
      path: '/tools/cutting/:id',
      name: 'cutting',
      meta: { title: 'Cutting' },
      component: () => import('./places/cutting/CuttingPlace.vue'),
      props: true,
    },
    {
      path: `/studio/:section(${SECTIONS.map(({ key }) => key).join('|')})`,
      name: 'studio',
      meta: { title: 'Settings' },
      component: () => import('./places/studio/StudioPlace.vue'),
      props: true,
    },
    {
      path: '/set-up',
      name: 'set-up',
      meta: { title: 'Set up your studio' },
      component: () => import('./places/studio/StudioPlace.vue'),
      props: { section: 'name', begins: true },
    },
    ...MOVED.map(([path, to]) => ({
      path,
      redirect: ({ params, query, hash }: RouteLocation) => ({
        path: to(String(params.rest ?? '')),
        query,
        hash,
      }),
    })),
    { path: '/studio/settings', redirect: '/studio/name' },
    // House rules stood there, and below them what has a part of the studio for itself.
    {
      path: '/studio',
      redirect: ({ hash }) => ({ path: FORMER[hash] ?? '/rules', hash: '' }),
    },
    {
      path: `/rules/:part(${PARTS.map(({ key }) => key).join('|')})?`,
      name: 'rules',
      meta: { title: 'House rules' },
      component: () => import('./places/house/HousePlace.vue'),
      props: ({ params }) => (params.part ? { part: params.part } : {}),
    },
    {
      path: '/tools/sums/:sum?',
      name: 'sums',
      meta: { title: 'Quick sums' },
      component: () => import('./places/sums/SumsPlace.vue'),
      props: true,
    },
    {
      path: '/tools/measuring-sheet',
      name: 'measuring-sheet',
      meta: { title: 'Measuring sheet' },
      component: () => import('./places/MeasuringSheet.vue'),
    },
    {
      path: '/about/api',
      name: 'api',
      meta: { title: 'The API' },
      component: () => import('./places/ApiPlace.vue'),
    },
    {
      path: '/about/licences',
      name: 'licences',
      meta: { title: 'Licences' },
      component: () => import('./places/LicencesPlace.vue'),
    },
    {
      path: '/:rest(.*)*',
      name: 'nowhere',
      meta: { title: 'Not found' },
      component: () => import('./places/NowherePlace.vue'),
    },
  ],
});

// Whoever goes somewhere by keyboard or by ear begins there, not at the link that was followed.
router.afterEach((to, from) => {
  if (from.matched.length === 0 || to.path === from.path) return;
  void nextTick(() => document.getElementById('main')?.focus({ preventScroll: true }));
});
