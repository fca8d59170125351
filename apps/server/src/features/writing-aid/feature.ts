import type { Feature } from '../../platform/feature.js';
import { WritingAidModule } from './index.js';

/** Drafts by a writing aid outside of Zesting; off unless the server is told where one is. */
export const feature: Feature = {
  name: 'writing-aid',
  module: WritingAidModule,
  entities: [],
  policies: {},
};
