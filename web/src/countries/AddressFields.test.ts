// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import { defineComponent, h, reactive } from 'vue';

import { read } from '@/api/queries';
import type { Country } from '@/api/types';
import { asked, serve } from '@/test/server';

import AddressFields from './AddressFields.vue';

const country = (code: string, name: string, lines: string[], more: Partial<Country> = {}): Country => ({
  code,
  name,
  own: false,
  listed: false,
  format: { lines, required: ['street'], postcode: null },
  example: null,
  regions: [],
  currency: null,
  letter: false,
  ...more,
});
const COUNTRIES = [
  country('XS', 'Saltmark', ['{name}', '{street}', '{town} {postcode}'], { own: true, listed: true }),
  country('US', 'United States', ['{name}', '{street}', '{town}, {region} {postcode}'], {
    regions: ['OR', 'WA'],
  }),
  country('BR', 'Brazil', ['{name}', '{street}', '{neighbourhood}', '{town}-{region}', '{postcode}']),
  country('SG', 'Singapore', ['{name}', '{street}', 'SINGAPORE {postcode}'], { example: '546080' }),
];

afterEach(() => {
  read.clear();
});

async function fields(code: string, more: Record<string, string> = {}) {
  serve('GET /api/v1/countries', { body: COUNTRIES });
  const address = reactive({
    name: '',
    company: '',
    street: '',
    neighbourhood: '',
    town: '',
    region: '',
    postcode: '',
    country: code,
    ...more,
  });
  const page = mount(
    defineComponent(() => () => h(AddressFields, { modelValue: address, at: 'buyer', errors: {} })),
  );
  await read.refetchQueries({ queryKey: ['countries'] });
  await flushPromises();
  const shown = () => page.findAll('[name]').map((field) => field.attributes('name')?.replace('buyer.', ''));
  return { page, address, shown };
}

describe('the fields of an address', () => {
  it('are those that its country writes', async () => {
    const { address, shown } = await fields('XS');
    expect(shown()).toEqual(['name', 'company', 'street', 'country', 'town', 'postcode']);
    address.country = 'BR';
    await flushPromises();
    expect(shown()).toEqual([
      'name',
      'company',
      'street',
      'country',
      'neighbourhood',
      'town',
      'region',
      'postcode',
    ]);
    // Singapore has no town.
    address.country = 'SG';
    await flushPromises();
    expect(shown()).toEqual(['name', 'company', 'street', 'country', 'postcode']);
  });

  it('keep what was typed in sight, wherever it goes now', async () => {
    const { shown } = await fields('SG', { town: 'Tern Bight', region: 'Fen' });
    expect(shown()).toContain('town');
    expect(shown()).toContain('region');
  });

  it('have regions to choose from where they are known', async () => {
    const { page } = await fields('US');
    const region = page.get('select[name="buyer.region"]');
    expect(region.findAll('option').map((one) => one.text())).toEqual(['None', 'OR', 'WA']);
    expect(page.get('[data-test="add-country"]').text()).toBe(
      'Add United States to the countries you send to',
    );
  });

  it('add a country by one press', async () => {
    const { page } = await fields('US');
    serve('GET /api/v1/studio/settings', { body: { version: 3, countries: [{ code: 'XS' }] } });
    serve('PUT /api/v1/studio/settings', {
      body: { version: 4, countries: [{ code: 'XS' }, { code: 'US' }] },
    });
    await page.get('[data-test="add-country"]').trigger('click');
    await flushPromises();
    const put = asked.find(({ what }) => what === 'PUT /api/v1/studio/settings');
    expect(put?.body).toMatchObject({
      version: 3,
      countries: [{ code: 'XS' }, { code: 'US' }],
    });
  });
});
