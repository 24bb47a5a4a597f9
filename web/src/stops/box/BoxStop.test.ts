// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import type { VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

import { read } from '@/api/queries';
import type { Blank } from '@/api/types';
import { opened } from '@/test/opened';
import { asked, bought, foldedFolder, serve, shipment, styles } from '@/test/server';

import BoxStop from './BoxStop.vue';
import CutList from './CutList.vue';

const WAYS = 'POST /api/v1/plans/changes';
const ways = { more: [], less: [], otherwise: null, price_step: null, alternatives: [], styles: styles() };

beforeEach(() => vi.useFakeTimers({ shouldAdvanceTime: true }));
afterEach(() => {
  document.body.innerHTML = '';
  read.clear();
  vi.useRealTimers();
});

async function atBox(before?: Parameters<typeof opened>[2]) {
  serve(WAYS, { body: ways });
  const shown = await opened(BoxStop, {}, before);
  await vi.advanceTimersByTimeAsync(10);
  await flushPromises();
  return shown;
}

/** Asks for the styles that are folded. */
async function unfold(mounted: VueWrapper) {
  const more = mounted.findAll('.styles .btn').find((one) => one.text().includes('other style'));
  await more?.trigger('click');
}

describe('the box', () => {
  it('shows what is made and the two nearest, and every style once it is asked for', async () => {
    const { mounted } = await atBox();
    expect(mounted.findAll('[data-style]')).toHaveLength(3);
    await unfold(mounted);
    expect(asked.find(({ what }) => what === WAYS)?.body).toMatchObject({ slot: 'box' });
    const cards = mounted.findAll('[data-style]');
    expect(cards.map((card) => card.attributes('data-style'))).toEqual(styles().map(({ style }) => style));
    const chosen = mounted.get('[data-style="slotted_edge"]');
    expect(chosen.attributes('aria-pressed')).toBe('true');
    expect(chosen.text()).toContain('as it is made');
    // What it costs more stands at each of the others, with its sign.
    const telescope = mounted.get('[data-style="telescope"]').text();
    expect(telescope).toMatch(/1 in \d+, ?[+−]\d+\.\d\d\u00a0EUR to send/);
  });

  it('says at a style that does not fit why, and can’t be pressed to it', async () => {
    const refused = ways.styles.map((offer) =>
      offer.style === 'folder'
        ? { ...offer, refused: 'no sheet of this board is large enough', chosen: false }
        : offer,
    );
    serve(WAYS, { body: { ...ways, styles: refused } });
    const { mounted } = await opened(BoxStop);
    await vi.advanceTimersByTimeAsync(10);
    await flushPromises();
    await unfold(mounted);
    const card = mounted.get('[data-style="folder"]');
    expect(card.text()).toContain('no sheet of this board is large enough');
    expect(card.attributes('disabled')).toBeDefined();
  });

  it('names first what one has already, where it does and costs less to send', async () => {
    const [offer] = bought();
    const own = (cost: string, keeps: boolean) => ({
      ...offer,
      keeps,
      chosen: false,
      refused: null,
      cost: { ...offer?.cost, amount: cost },
    });
    for (const [cost, keeps, named] of [
      ['-2.40', true, true],
      ['2.40', true, false],
      ['-2.40', false, false],
    ] as const) {
      serve(WAYS, { body: { ...ways, bought: [own(cost, keeps)] } });
      const { mounted } = await opened(BoxStop);
      await vi.advanceTimersByTimeAsync(10);
      await flushPromises();
      const first = mounted.find('[data-test="own-first"]');
      expect(first.exists(), `${cost} ${String(keeps)}`).toBe(named);
      if (named) expect(first.text()).toMatch(/A bought carton fits.*It saves\s+2\.40/);
      mounted.unmount();
      read.clear();
    }
  });

  it('shows net, cut list and seal one at a time', async () => {
    const { mounted } = await atBox();
    const shown = () => mounted.findAll('.view.shown').map((one) => one.attributes('data-test'));
    expect(shown()).toEqual(['net']);
    await mounted.get<HTMLInputElement>('[name="view"][value="cuts"]').setValue(true);
    expect(shown()).toEqual(['cuts']);
  });

  it('tells its acts through all of its steps, each with its picture', async () => {
    const act = { does: 'fold', thing: 'box', to: null, strips: [], until: null, waits_minutes: 0 };
    const picture = {
      width: 100,
      height: 50,
      faces: [
        {
          of: 'card',
          points: [
            [0, 0],
            [100, 0],
            [100, 50],
          ],
        },
      ],
      arrow: [
        [50, 10],
        [50, 40],
      ],
    };
    const step = (key: string, title: string, acts: object[]) => ({ key, title, acts });
    serve('POST /api/v1/plans/packing', {
      body: {
        packing: {
          steps: [
            step('seal/box', 'Seal it', [{ ...act, says: 'Tape the opening.' }]),
            step('layer/box', 'Box', [
              { ...act, says: 'Fold it to a ring.' },
              { ...act, says: 'Tape the joint.' },
            ]),
            step('in/box', 'Slide it in', [{ ...act, says: 'Slide it down.', picture }]),
          ],
        },
      },
    });
    const { mounted } = await atBox();
    await mounted.get<HTMLInputElement>('[name="view"][value="steps"]').setValue(true);
    await vi.advanceTimersByTimeAsync(10);
    await flushPromises();
    const lists = mounted.findAll('[data-test="acts"] ol');
    expect(lists.map((list) => list.attributes('start'))).toEqual(['1', '3', '4']);
    expect(lists.at(1)?.text()).toBe('Slide it down.');
    const drawn = mounted.get('[data-test="acts"] svg');
    expect(drawn.attributes('aria-label')).toBe('Slide it down.');
    expect(drawn.findAll('polygon.card')).toHaveLength(1);
    expect(drawn.find('path.way').exists()).toBe(true);
  });

  it('is made otherwise by one press, which is stored at once', async () => {
    const { mounted, stored } = await atBox();
    const patch = `PATCH /api/v1/shipments/${stored.id}`;
    serve(patch, ({ body }) => ({
      body: {
        ...stored,
        version: stored.version + 1,
        inputs: { ...stored.inputs, choices: (body as { change: { choices: object } }).change.choices },
      },
    }));
    await unfold(mounted);
    await mounted.get('[data-style="telescope"]').trigger('click');
    await flushPromises();
    const sent = asked.find(({ what }) => what === patch)?.body;
    expect(sent).toMatchObject({ change: { choices: { box_style: 'telescope' } } });
  });

  it('is looked at one after the other where there are two', async () => {
    const { mounted } = await atBox((stored) => {
      const layers = stored.worked.plan?.layers ?? [];
      const first = layers.find(({ slot }) => slot === 'box');
      if (!first) throw new Error('the demo canvas is boxed');
      const second = structuredClone(first);
      second.slot = 'second_box';
      second.material_name = 'Outer board';
      layers.push(second);
    });
    expect(mounted.text()).toContain('Second box: edge-opening box');
    await mounted.get('[name="which-box"][value="box"]').setValue(true);
    expect(mounted.text()).not.toContain('Second box: edge-opening box');
    expect(mounted.findAll('h2').map((title) => title.text())).toContain('Edge-opening box');
  });
});

describe('what is on the shelf in place of a box', () => {
  async function atShelf() {
    serve(WAYS, { body: { ...ways, bought: bought() } });
    const shown = await opened(BoxStop);
    await vi.advanceTimersByTimeAsync(10);
    await flushPromises();
    return shown;
  }

  it('is told with what it would do, and why the others would not', async () => {
    const { mounted } = await atShelf();
    const fit = bought().filter(({ refused }) => !refused);
    expect(mounted.findAll('[data-bought]').map((row) => row.attributes('data-bought'))).toEqual(
      fit.map(({ material }) => material),
    );
    const [first] = fit;
    const row = mounted.get(`[data-bought="${first?.material}"]`).text();
    expect(row).toContain(first?.name);
    expect(row).toMatch(/1 in \d+/);
    const others = mounted.findAll('.others li').map((one) => one.text());
    expect(others).toEqual(bought().flatMap(({ refused }) => refused ?? []));
  });

  it('is taken by one press', async () => {
    const { mounted, stored } = await atShelf();
    const patch = `PATCH /api/v1/shipments/${stored.id}`;
    serve(patch, { body: stored });
    const [first] = bought();
    await mounted.get(`[data-bought="${first?.material}"] button`).trigger('click');
    await flushPromises();
    const sent = asked.find(({ what }) => what === patch)?.body;
    expect(sent).toMatchObject({ change: { choices: { bought_box: first?.material } } });
  });
});

describe('the seal', () => {
  it('is told strip by strip in the order in which it is laid, with its metres', async () => {
    const { mounted } = await atBox();
    const seal = mounted.get('[aria-label="How it is sealed"]');
    expect(seal.text()).toMatch(/\d\.\d m of /);
    expect(seal.text()).toContain('Every seam');
    expect(seal.text()).toMatch(/Over the opening: 2 × \d+\u00a0mm/);
    expect(seal.text()).toMatch(/Over its ends: 4 × \d+\u00a0mm/);
    // Each of the seven strips lies on a side that one of the two views shows; one on an edge may be in both.
    expect(seal.findAll('svg line').length).toBeGreaterThanOrEqual(7);
  });
});

describe('a cut list', () => {
  const cut = (blank: Blank, slotMm: number) =>
    mount(CutList, { props: { blank, slotMm, tabMm: 28 } })
      .findAll('tbody tr')
      .map((row) => row.findAll('th, td').map((cell) => cell.text()));
  const make = shipment().worked.plan?.layers.find(({ slot }) => slot === 'box')?.make;
  if (make?.kind !== 'slotted_box') throw new Error('the demo canvas is boxed');

  it('leads from the sheet to the tab, in running distances', () => {
    const rows = cut(make.blank, make.slot_mm);
    const { blank } = make;
    expect(rows[0]).toEqual(['trim the sheet across', `${blank.width_mm.toFixed(0)}\u00a0mm`]);
    expect(rows[2]?.[1]).toBe(
      blank.runs_across_mm
        .slice(1, -1)
        .map((at) => at.toFixed(0))
        .join(' · '),
    );
    // Three slots between four flaps, below and above; beside the tab the whole of one off the last flap.
    expect(rows.slice(-3).map(([, is]) => is)).toEqual(['6 ×', '2 ×', '2 ×']);
  });

  it('says where one part of a blank has the lap that joins it to the next', () => {
    const [first] = make.blank.panels;
    if (!first) throw new Error('a blank has panels');
    const lap = { ...first, name: 'lap', role: 'tab' } as const;
    const rows = cut({ ...make.blank, panels: [first, lap] }, make.slot_mm);
    expect(rows).toContainEqual(['leave the lap at the right, as high as the walls', '1 ×']);
    expect(rows.some(([says]) => says?.startsWith('bevel'))).toBe(false);
  });

  it('says how long the inner flaps of a box are that is deeper than long', () => {
    const rows = cut({ ...make.blank, inner_flap_mm: 196 }, make.slot_mm);
    expect(rows).toContainEqual(['trim the flaps of both narrow sides to', '196\u00a0mm']);
    const usual = cut({ ...make.blank, inner_flap_mm: null }, make.slot_mm);
    expect(usual.some(([says]) => says?.includes('trim the flaps'))).toBe(false);
  });

  it('has corners to cut away where there are no slots', () => {
    const [folder] = foldedFolder().blanks;
    if (!folder) throw new Error('a folder has a blank');
    const rows = cut(folder, 0);
    expect(rows.at(-1)).toEqual(['cut the corners away, along the drawing', '4 ×']);
    expect(rows.some(([says]) => says?.includes('slots'))).toBe(false);
  });
});
