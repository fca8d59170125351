import type { AcceptRequestBody, ClientShape, RequestRow } from '@zesting/contract';

/**
 * What a request is accepted as where nothing else is said: what its form's rules say, else on the client's first channel.
 * @param routeId where its rules say none
 */
export function acceptanceOf(
  { title, takes, wishOn }: Pick<RequestRow, 'title' | 'takes' | 'wishOn'>,
  client: ClientShape | undefined,
  routeId: string,
): AcceptRequestBody {
  return {
    title,
    routeId: takes.routeId ?? routeId,
    pillarId: takes.pillarId ?? null,
    channelIds: takes.channelIds?.length ? [...takes.channelIds] : (client?.channels.slice(0, 1).map((channel) => channel.id) ?? []),
    wishOn,
    notes: '',
  };
}
