import { go, manages, type WebFeature } from '../../lib/feature';
import { DeskPage } from './desk-page';

export const feature: WebFeature = {
  name: 'desk',
  routes: [{ index: true, element: <DeskPage /> }],
  actions: (session) => [go(manages(session) ? 'Your desk' : 'Your steps', '/')],
};
