import type { Feature } from '../../platform/feature.js';
import { Notice } from './entities/notice.entity.js';
import { Reminder } from './entities/reminder.entity.js';
import { NoticesModule } from './index.js';

export const feature: Feature = {
  name: 'notices',
  module: NoticesModule,
  entities: [Notice, Reminder],
  policies: {},
};
