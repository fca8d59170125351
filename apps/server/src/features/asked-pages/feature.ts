import type { Feature } from '../../platform/feature.js';
import { AskedPage } from './entities/asked-page.entity.js';
import { AskedPagesModule } from './index.js';

/** Whether the pages are there to which links lead that go out. */
export const feature: Feature = {
  name: 'asked-pages',
  module: AskedPagesModule,
  entities: [AskedPage],
  policies: {},
};
