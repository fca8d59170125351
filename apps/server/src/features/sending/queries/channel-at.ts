import type { App } from '../../../platform/app.js';
import { unseal } from '../../../platform/sealing.js';
import type { ChannelAt } from '../channel-client.js';

/** How a channel is called; undefined where nothing goes out there by itself any more, or its token cannot be read. */
export async function channelAt(app: App, channelId: string): Promise<ChannelAt | undefined> {
  const [link] = await app.read<{ address: string | null; token: string }>(
    'select address, token from channel_links where channel_id = $1',
    [channelId],
  );
  return link && addressed(app, channelId, link.address, link.token);
}

/** The same of an address and a sealed token; an address of null is that of the simulated channels. */
export function addressed(app: App, channelId: string, given: string | null, sealed: string): ChannelAt | undefined {
  const { simulatedChannels, serverKey, channelSeconds } = app.config;
  const address = given ?? (simulatedChannels === null ? null : `${simulatedChannels}/c/${channelId}`);
  const token = sealed === '' ? '' : unseal(serverKey, sealed);
  return address === null || token === undefined
    ? undefined
    : { address: address.replace(/\/+$/, ''), token, timeoutMs: channelSeconds * 1000 };
}
