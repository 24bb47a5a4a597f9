// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { expect, it } from 'vitest';

import type { BrokenPicture } from '@/api/types';

import BrokenPictures from './BrokenPictures.vue';

const broken = (title: string, what: BrokenPicture['what'], why: BrokenPicture['why']): BrokenPicture => ({
  shipment: title,
  title,
  photograph: '',
  what,
  why,
});

it('tells of each shipment what it lacks', () => {
  const props = {
    broken: [
      broken('Kelp Ladder', 'photograph', 'missing'),
      broken('Kelp Ladder', 'photograph', 'missing'),
      broken('Kelp Ladder', 'handover_record', 'changed'),
      broken('Slack Tide', 'handover_record', 'missing'),
    ],
    all: 5,
  };
  const lines = mount(BrokenPictures, { props }).findAll('li');
  expect(lines.map((line) => line.text())).toEqual([
    'Kelp Ladder: two pictures missing, handover record broken',
    'Slack Tide: handover record missing',
    'and 1 more',
  ]);
});
