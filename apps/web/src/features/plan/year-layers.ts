import type { MarkerShape } from '@zesting/contract';

/** The layers of a year, one above another. */
export const LAYERS = [
  { key: 'themes', name: 'Themes', kinds: [] },
  { key: 'seasons', name: 'Seasons', kinds: ['season_busy', 'season_quiet'] },
  { key: 'launches', name: 'Launches and offers', kinds: ['launch', 'offer', 'email'] },
  { key: 'events', name: 'Events', kinds: ['event', 'conference', 'live', 'own'] },
  { key: 'making', name: 'Production days', kinds: ['production_day'] },
  { key: 'closed', name: 'Closed', kinds: ['blackout', 'closure'] },
  { key: 'days', name: 'Holidays and observances', kinds: ['holiday', 'observance'] },
  { key: 'slots', name: 'Slots', kinds: [] },
] as const satisfies readonly { key: string; name: string; kinds: readonly MarkerShape['kind'][] }[];
export type LayerKey = (typeof LAYERS)[number]['key'];

export const isLayer = (text: string): text is LayerKey => LAYERS.some(({ key }) => key === text);

/** The markers of a layer that begin in a month, or reach into it. */
export const markersIn = (markers: readonly MarkerShape[], layer: LayerKey, month: string): MarkerShape[] => {
  const kinds: readonly string[] = LAYERS.find(({ key }) => key === layer)?.kinds ?? [];
  return markers.filter(({ kind, startOn, endOn }) => kinds.includes(kind) && startOn.slice(0, 7) <= month && endOn.slice(0, 7) >= month);
};
