import { startMailCatcher } from './mail-catcher.js';

const catcher = await startMailCatcher({
  smtpPort: Number(process.env['ZESTING_SMTP_PORT'] ?? 4313),
  webPort: Number(process.env['ZESTING_MAIL_PORT'] ?? 4311),
  inboxPort: process.env['ZESTING_INBOX_PORT'] ? Number(process.env['ZESTING_INBOX_PORT']) : null,
  folder: process.env['ZESTING_MAIL_FOLDER'] ?? null,
});
const end = () => void catcher.close().finally(() => process.exit(0));
for (const signal of ['SIGINT', 'SIGTERM', 'disconnect'] as const) process.once(signal, end);
process.send?.('listening');
