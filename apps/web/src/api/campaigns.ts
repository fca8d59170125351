import { queryOptions } from '@tanstack/react-query';
import type { CampaignMoveShape, CampaignPageShape, CampaignsShape } from '@zesting/contract';
import { call } from '../lib/api';

export const campaignKeys = {
  all: (query: string) => ['campaigns', 'all', query] as const,
  one: (campaignId: string) => ['campaigns', 'one', campaignId] as const,
  move: (campaignId: string, from: string, to: string) => ['campaigns', 'move', campaignId, from, to] as const,
} as const;

/** Campaigns of a client, or of all. @param query `clientId=…&from=…&to=…`, or less */
export const campaignsQuery = (query: string) =>
  queryOptions({ queryKey: campaignKeys.all(query), queryFn: () => call<CampaignsShape>(`/campaigns?${query}`) });

export const campaignQuery = (campaignId: string) =>
  queryOptions({ queryKey: campaignKeys.one(campaignId), queryFn: () => call<CampaignPageShape>(`/campaigns/${campaignId}`) });

/** What another period would make of a campaign. */
export const campaignMoveQuery = (campaignId: string, from: string, to: string) =>
  queryOptions({
    queryKey: campaignKeys.move(campaignId, from, to),
    queryFn: () => call<CampaignMoveShape>(`/campaigns/${campaignId}/move?from=${from}&to=${to}`),
  });
