import type { Feature } from '../../platform/feature.js';
import { NoticesModule } from './index.js';

export const feature: Feature = {
  name: 'notices',
  module: NoticesModule,
  entities: [],
  tables: ['notices', 'reminders'],
  policies: {},
};
