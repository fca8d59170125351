import type { App } from '../../../platform/app.js';
import { unseal } from '../../../platform/sealing.js';
import type { ChannelAt } from '../channel-client.js';

/**
 * How a channel is called: at its address, or else where a channel of its kind is simulated. Undefined where nothing goes out there by itself any
 * more, or its token cannot be read.
 */
export async function channelAt(app: App, channelId: string): Promise<ChannelAt | undefined> {
  const [link] = await app.read<{ address: string | null; token: string; kind: string }>(
    'select l.address, l.token, h.kind from channel_links l join channels h on h.id = l.channel_id where l.channel_id = $1',
    [channelId],
  );
  if (!link) return undefined;
  const { simulatedChannels, serverKey, channelSeconds } = app.config;
  const address = link.address ?? (simulatedChannels === null ? null : `${simulatedChannels}/c/${link.kind}/${channelId}`);
  const token = link.token === '' ? '' : unseal(serverKey, link.token);
  return address === null || token === undefined
    ? undefined
    : { address: address.replace(/\/+$/, ''), token, timeoutMs: channelSeconds * 1000 };
}
