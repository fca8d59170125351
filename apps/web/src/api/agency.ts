import { queryOptions } from '@tanstack/react-query';
import type {
  AgencySettingsShape,
  BeginningShape,
  DemoShape,
  FormatWritingsShape,
  RegionShape,
  SessionShape,
  StartShape,
  DeviceShape,
} from '@zesting/contract';
import { call } from '../lib/api';
import { AS_WRITTEN } from '../lib/as-written';

export const sessionKeys = { own: ['session'], start: ['start'], devices: ['devices'] } as const;

/** Who is signed in; null: nobody. */
export const sessionQuery = queryOptions({
  queryKey: sessionKeys.own,
  queryFn: () => call<SessionShape | null>('/session'),
  staleTime: 60_000,
});

/** Whether there is an agency to sign in to. */
export const startQuery = queryOptions({ queryKey: sessionKeys.start, queryFn: () => call<StartShape>('/start') });

/** Where one is signed in. */
export const devicesQuery = queryOptions({
  queryKey: sessionKeys.devices,
  meta: AS_WRITTEN,
  queryFn: () => call<DeviceShape[]>('/session/devices'),
});

export const agencyKeys = {
  all: ['agency'],
  beginning: ['agency', 'beginning'],
  demo: ['agency', 'demo'],
  writing: ['agency', 'writing'],
  regions: ['regions'],
} as const;

export const agencyQuery = queryOptions({
  queryKey: agencyKeys.all,
  meta: AS_WRITTEN,
  queryFn: () => call<AgencySettingsShape>('/agency'),
});

/** The formats, with what their pieces are written by. */
export const formatWritingsQuery = queryOptions({
  queryKey: agencyKeys.writing,
  meta: AS_WRITTEN,
  queryFn: () => call<FormatWritingsShape>('/formats/writing'),
});

/** What comes next in an agency that is new. */
export const beginningQuery = queryOptions({ queryKey: agencyKeys.beginning, queryFn: () => call<BeginningShape>('/agency/beginning') });

export const demoQuery = queryOptions({ queryKey: agencyKeys.demo, queryFn: () => call<DemoShape>('/agency/demo') });

/** The regions whose public holidays are known. */
export const regionsQuery = queryOptions({
  queryKey: agencyKeys.regions,
  queryFn: () => call<RegionShape[]>('/regions'),
  staleTime: Infinity,
});
