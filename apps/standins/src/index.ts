export { startMailCatcher, type MailCatcher } from './mail-catcher.js';
export type { CaughtMail } from './mail-store.js';
