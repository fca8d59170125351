import { canonical, sha256Hex } from '@zesting/core';

/** What somebody looks at before a placement goes out: the digests of both parts that go out there, the day and the time. */
export interface Looked {
  /** of the piece's content, as it stands */
  readonly digests: { readonly shared: string; readonly channels: Readonly<Record<string, string>> };
  readonly channelId: string;
  readonly on: string | null;
  readonly at: string | null;
}

/** One digest of all that a tick is for: it holds as long as none of it changes. */
export const seenOf = ({ digests, channelId, on, at }: Looked): string =>
  sha256Hex(canonical([digests.shared, digests.channels[channelId] ?? '', on, at?.slice(0, 5) ?? null]));
