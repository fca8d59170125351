export { BEHAVIOURS, type Behaviour } from './behaviours.js';
export { startChannels, type Channels } from './channels.js';
export type { ChannelPost } from './channel-store.js';
export { startMailCatcher, type MailCatcher } from './mail-catcher.js';
export type { CaughtMail } from './mail-store.js';
