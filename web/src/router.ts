import { createRouter, createWebHistory } from 'vue-router';

import { beginShipment } from './shipment/begun';

export const STOPS = ['measure', 'guard', 'box', 'price'] as const;
export type StopName = (typeof STOPS)[number];

export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  routes: [
    { path: '/', name: 'bench', component: () => import('./places/BenchPlace.vue') },
    { path: '/shipments/new', redirect: () => `/shipments/${beginShipment()}/measure` },
    { path: '/shipments/:id', redirect: (to) => `/shipments/${String(to.params.id)}/measure` },
    {
      path: '/shipments/:id',
      component: () => import('./places/ShipmentPlace.vue'),
      props: true,
      children: [
        { path: 'measure', name: 'measure', component: () => import('./stops/measure/MeasureStop.vue') },
        { path: 'guard', name: 'guard', component: () => import('./stops/guard/GuardStop.vue') },
        { path: 'box', name: 'box', component: () => import('./stops/box/BoxStop.vue') },
        { path: 'price', name: 'price', component: () => import('./stops/price/PriceStop.vue') },
      ],
    },
    {
      path: '/stores/:shelf?',
      name: 'stores',
      component: () => import('./places/stores/StoresPlace.vue'),
      props: true,
    },
    { path: '/studio', name: 'studio', component: () => import('./places/house/HousePlace.vue') },
    {
      path: '/sums/:sum?',
      name: 'sums',
      component: () => import('./places/sums/SumsPlace.vue'),
      props: true,
    },
    {
      path: '/measuring-sheet',
      name: 'measuring-sheet',
      component: () => import('./places/MeasuringSheet.vue'),
    },
    { path: '/about/api', name: 'api', component: () => import('./places/ApiPlace.vue') },
    {
      path: '/about/licences',
      name: 'licences',
      component: () => import('./places/LicencesPlace.vue'),
    },
    { path: '/:rest(.*)*', name: 'nowhere', component: () => import('./places/NowherePlace.vue') },
  ],
});
