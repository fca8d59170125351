import { Module, type OnModuleInit } from '@nestjs/common';
import { App } from '../../platform/app.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { MailSender } from '../../platform/mail/mail.js';
import { tellMailFailure } from './mail-failure.js';
import { sendReminders } from './reminders.js';
import { sendRoundUps } from './round-ups.js';
import { SEND_ROUND_UPS } from './tell.js';

const EVERY_MINUTE = '* * * * *';
const EVERY_QUARTER = '*/15 * * * *';

@Module({})
export class NoticesModule implements OnModuleInit {
  constructor(
    private readonly app: App,
    private readonly jobs: Jobs,
    private readonly mail: MailSender,
  ) {}

  onModuleInit(): void {
    this.mail.onFailure((failure) => tellMailFailure(this.app, failure));
    this.jobs.register(SEND_ROUND_UPS, async () => void (await sendRoundUps(this.app)), EVERY_MINUTE);
    this.jobs.register('notices_remind', async () => void (await sendReminders(this.app)), EVERY_QUARTER);
  }
}
