import type { SpreadLineBody } from '@zesting/contract';

/** An output of a spread of which nothing is said but its route. */
export const plainLine = (routeId: string, more: Partial<SpreadLineBody> = {}): SpreadLineBody => ({
  key: 'clip',
  name: '',
  channelId: null,
  routeId,
  offset: { count: 0, unit: 'days' },
  change: '',
  needsCopy: false,
  needsPicture: false,
  shape: 'as_it_is',
  callToAction: '',
  guidelineId: null,
  doers: [],
  obstacle: '',
  ...more,
});
