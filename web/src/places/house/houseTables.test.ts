// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import type { Component } from 'vue';
import { reactive } from 'vue';
import { afterEach, describe, expect, it } from 'vitest';

import { read } from '@/api/queries';
import { serve, studio } from '@/test/server';

import AllowanceTable from './AllowanceTable.vue';
import HouseBeginnings from './HouseBeginnings.vue';
import HouseOdds from './HouseOdds.vue';
import HousePlaces from './HousePlaces.vue';
import HouseRecord from './HouseRecord.vue';
import SchoolQuestions from './SchoolQuestions.vue';
import { editedLines, editedOdds } from './useOdds';
import type { EditedLine, EditedOdds } from './useOdds';

afterEach(() => read.clear());

const known = studio();
const odds = (): EditedOdds =>
  reactive(JSON.parse(JSON.stringify(editedOdds(known.rules.odds))) as EditedOdds);

function table(shown: Component, edited: EditedOdds, errors: Record<string, string> = {}) {
  return mount(shown, { props: { studio: known, errors, modelValue: edited } });
}

describe('the odds of a journey', () => {
  it('are a row for each kind of piece and each route, changed where they stand', async () => {
    const edited = odds();
    const shown = table(HouseOdds, edited);
    expect(shown.get('[data-test="classes"]').findAll('tbody tr')).toHaveLength(known.classes.length);
    await shown.get('[name="odds.paper_boxed.base"]').setValue('0.4');
    expect(edited.classes.paper_boxed?.base_percent).toBe(0.4);
    await shown.get('[name="odds.canvas.size"]').setValue('900');
    expect(edited.classes.canvas?.base_size).toBe(900);
    await shown.get('[name="odds.mirror.base_small"]').setValue('1.5');
    expect(edited.classes.mirror?.base_percent_small).toBe(1.5);
    expect(shown.find('[name="odds.paper_boxed.size"]').exists()).toBe(false);
    await shown.get('[name="odds.own_van.roughness"]').setValue('2.5');
    expect(edited.routes.own_van?.roughness).toBe(2.5);
  });

  it('keep saying whether a route is wet, when that is ticked and when it is unticked', async () => {
    const edited = odds();
    const shown = table(HouseOdds, edited);
    const wet = shown.get('[name="odds.own_van.wet"]');
    const before = edited.routes.own_van?.wet;
    await wet.setValue(!before);
    expect(edited.routes.own_van?.wet).toBe(!before);
    await wet.setValue(before);
    expect(edited.routes.own_van?.wet).toBe(before);
  });

  it('say at the kind of piece that its shares do not come to 100', () => {
    const says = 'they come to 90; give shares that come to 100';
    const shown = table(HouseOdds, odds(), { 'odds.classes.paper_boxed.shares_percent': says });
    const rows = shown.get('[data-test="classes"]').findAll('tbody tr');
    const wrong = rows.filter((row) => row.text().includes(says));
    expect(wrong).toHaveLength(1);
    expect(wrong[0]?.get('th').text()).toContain(
      known.classes.find((one) => one.class === 'paper_boxed')?.name,
    );
  });
});

describe('where a route leads', () => {
  it('is a line for each country, with its postcodes and its wet months', async () => {
    const edited = odds();
    const before = edited.places.length;
    const shown = table(HousePlaces, edited);
    await shown.findAll('button').at(-1)?.trigger('click');
    expect(edited.places).toHaveLength(before + 1);
    expect(edited.places.at(-1)).toEqual({
      country: known.countries[0]?.code,
      postcode_prefixes: [],
      route: 'national',
      wet_months: [],
      hot_months: [],
    });
    await shown.get(`[name="place.${before}.country"]`).setValue('XQ');
    expect(edited.places[before]?.country).toBe('XQ');
  });

  it('is taken away line by line, the others staying as they are', async () => {
    const edited = odds();
    const [, ...rest] = JSON.parse(JSON.stringify(edited.places)) as EditedOdds['places'];
    const shown = table(HousePlaces, edited);
    await shown.get('tbody tr button.plain').trigger('click');
    expect(edited.places).toEqual(rest);
  });
});

describe('the studio’s own record', () => {
  it('begins with nothing, and counts what is written down', async () => {
    const edited = odds();
    edited.record = [];
    const shown = table(HouseRecord, edited);
    expect(shown.get('summary').text()).toContain('nothing written down yet');
    expect(shown.find('[data-test="record"]').exists()).toBe(false);
    await shown.findAll('button').at(-1)?.trigger('click');
    await shown.get('[name="record.0.sent"]').setValue('120');
    await shown.get('[name="record.0.damaged"]').setValue('2');
    await shown.get('select[aria-label="Route of line 1"]').setValue('art_courier');
    expect(edited.record).toEqual([{ class: 'canvas', route: 'art_courier', sent: 120, damaged: 2 }]);
    await shown.get('[data-test="record"] button.plain').trigger('click');
    expect(edited.record).toEqual([]);
  });

  it('says at the line what can’t stand', () => {
    const edited = odds();
    edited.record = [{ class: 'canvas', route: 'national', sent: 1, damaged: 2 }];
    const says = 'more damaged than sent';
    const shown = table(HouseRecord, edited, { 'odds.record[0].sent': says });
    expect(shown.get('tbody tr').text()).toContain(says);
  });
});

describe('from whom to begin', () => {
  const any: EditedLine = {
    routes: [],
    classes: [],
    value_over: null,
    value_up_to: null,
    irreplaceable: false,
    start_from: '',
  };
  const lines = (): EditedLine[] =>
    reactive([
      ...editedLines(known.rules.beginnings),
      { ...any, classes: ['paper_boxed'], start_from: 'Standard' },
      { ...any, routes: ['art_courier'], value_over: 2000, start_from: 'Twice boxed' },
    ]);

  async function shown(edited: EditedLine[], errors: Record<string, string> = {}) {
    serve('GET /api/v1/studio/presets', {
      body: [{ id: null, about: '', rules: { ...known.rules, name: 'Twice boxed' } }],
    });
    const mounted = mount(HouseBeginnings, {
      props: { studio: known, errors, name: known.rules.name, modelValue: edited },
    });
    await flushPromises();
    return mounted;
  }

  it('is an ordered list, of which a line moves up and down and goes away', async () => {
    const edited = lines();
    const order = () => edited.map((line) => line.start_from + line.routes.join());
    const before = order();
    const mounted = await shown(edited);
    const button = (line: number, name: string) =>
      mounted
        .findAll('li')
        [line]?.findAll('button.plain')
        .find((one) => one.text() === name);
    expect(button(0, 'Up')).toBeUndefined();
    await button(0, 'Down')?.trigger('click');
    expect(order()).toEqual([before[1], before[0], ...before.slice(2)]);
    await button(1, 'Up')?.trigger('click');
    expect(order()).toEqual(before);
    await button(0, 'Take away')?.trigger('click');
    expect(order()).toEqual(before.slice(1));
  });

  it('shows four lines, and the others when they are asked for or one of them is refused', async () => {
    const edited = lines();
    expect(edited.length).toBeGreaterThan(4);
    const some = await shown(edited);
    expect(some.findAll('li')).toHaveLength(4);
    await some.get('button.btn').trigger('click');
    expect(some.findAll('li')).toHaveLength(edited.length);
    const refused = await shown(lines(), { 'beginnings[5].value_over': 'it is no number' });
    expect(refused.findAll('li')).toHaveLength(edited.length);
  });

  it('has a new line that holds for all, until something is named in it', async () => {
    const edited = lines();
    edited.length = 0;
    const mounted = await shown(edited);
    await mounted.findAll('button').at(-1)?.trigger('click');
    expect(mounted.findAll('li summary').map((one) => one.text())).toEqual(['any', 'any']);
    await mounted.get('[name="begin.0.value"]').setValue('2000');
    await mounted.get('[name="begin.0.irreplaceable"]').setValue(true);
    expect(edited[0]).toMatchObject({ value_over: 2000, irreplaceable: true, start_from: known.rules.name });
    await mounted.get('[name="begin.0.irreplaceable"]').setValue(false);
    expect(edited[0]?.irreplaceable).toBe(false);
  });

  it('says at a line that it starts from nothing the house has', async () => {
    const mounted = await shown(lines(), { 'beginnings[0].start_from': 'there is no such preset' });
    expect(mounted.findAll('li')[0]?.get('.error').text()).toBe('there is no such preset');
  });
});

describe('the schools', () => {
  it('are questions of which one answer holds, told apart for the eye and for the ear', async () => {
    const schools = { ...known.rules.schools } as Record<string, string>;
    const mounted = mount(SchoolQuestions, {
      props: {
        questions: known.schools,
        modelValue: schools,
        'onUpdate:modelValue': (modelValue: Record<string, string>) => mounted.setProps({ modelValue }),
      },
    });
    const padding = mounted.get('[data-school="padding"]');
    expect(padding.findAll('input[type="radio"]').map((one) => one.attributes('name'))).toEqual(
      padding.findAll('input').map(() => 'schools.padding'),
    );
    await padding.get('input[value="lean"]').setValue(true);
    expect((mounted.props('modelValue') as Record<string, string>).padding).toBe('lean');
    expect(mounted.get('[data-school="padding"]').findAll('.chosen')).toHaveLength(1);
  });

  it('begin with the eight that change most plans, each school of them drawn', () => {
    const mounted = mount(SchoolQuestions, {
      props: { questions: known.schools, modelValue: { ...known.rules.schools, facing: 'backs_together' } },
    });
    const more = mounted.get('[data-test="more-questions"]');
    const folded = more.findAll('fieldset').length;
    const first = mounted.findAll('fieldset').length - folded;
    expect([first, first + folded]).toEqual([8, known.schools.length]);
    expect(more.attributes('open')).toBeUndefined();
    expect(more.get('summary').text()).toContain('1 answered your own way');
    // Each school of a first question has a drawing, and no two of a question are alike.
    for (const { key, schools } of known.schools.filter(({ asked_first }) => asked_first)) {
      const drawings = mounted.get(`[data-school="${key}"]`).findAll('svg');
      expect(new Set(drawings.map((drawing) => drawing.html())).size, key).toBe(schools.length);
    }
    expect(more.find('svg').exists()).toBe(false);
  });
});

describe('the numbers of a studio', () => {
  it('are those that a studio changes; one that custom settles stands there once it was changed', () => {
    const count = (values: Record<string, number | null>) => {
      const mounted = mount(AllowanceTable, {
        props: { allowances: known.allowances, errors: {}, modelValue: values },
        global: { stubs: { RouterLink: true } },
      });
      return mounted.findAll('input').length;
    };
    const usual = { ...known.rules.allowances } as Record<string, number | null>;
    const settled = known.allowances.filter(({ on_pages }) => !on_pages).length;
    expect(settled).toBeGreaterThanOrEqual(60);
    expect(count(usual)).toBe(known.allowances.length - settled);
    expect(count({ ...usual, stack_safety: 6 })).toBe(known.allowances.length - settled + 1);
  });
});
