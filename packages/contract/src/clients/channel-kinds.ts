export { CHANNEL_KINDS, type ChannelKind } from '@zesting/core';
