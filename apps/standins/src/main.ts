import { startChannels } from './channels.js';
import { startMailCatcher } from './mail-catcher.js';

const { env } = process;
const catcher = await startMailCatcher({
  smtpPort: Number(env['ZESTING_SMTP_PORT'] ?? 4313),
  webPort: Number(env['ZESTING_MAIL_PORT'] ?? 4311),
  inboxPort: env['ZESTING_INBOX_PORT'] ? Number(env['ZESTING_INBOX_PORT']) : null,
  folder: env['ZESTING_MAIL_FOLDER'] ?? null,
});
const channels = env['ZESTING_CHANNELS_PORT']
  ? await startChannels({ port: Number(env['ZESTING_CHANNELS_PORT']), folder: env['ZESTING_CHANNELS_FOLDER'] ?? null })
  : undefined;
const end = () => void Promise.all([catcher.close(), channels?.close()]).finally(() => process.exit(0));
for (const signal of ['SIGINT', 'SIGTERM', 'disconnect'] as const) process.once(signal, end);
process.send?.('listening');
