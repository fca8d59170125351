import { Module, type OnModuleInit } from '@nestjs/common';
import { App } from '../../platform/app.js';
import { Inbox } from '../../platform/mail/inbox.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { clientMade, linksKept } from '../clients/index.js';
import { ClientFormController } from './client-form.controller.js';
import { DatesController } from './dates.controller.js';
import { FormsController, SchemasController } from './forms.controller.js';
import { AskController } from './ask.controller.js';
import { KnownController } from './known.controller.js';
import { MailsController } from './mails.controller.js';
import { ReceiptController } from './receipts.controller.js';
import { AskUploadsController, ReceiptUploadsController } from './uploads.controller.js';
import { RequestsController } from './requests.controller.js';
import { TableController } from './table.controller.js';
import { clearMails } from './use-cases/clear-mails.js';
import { giveForm } from './use-cases/give-form.js';
import { mailboxClient, takeMail } from './use-cases/take-mail.js';

export { Request } from './entities/request.entity.js';
export { answerBack, askBack } from './use-cases/ask-back.js';
export { mergeRequest } from './use-cases/join-requests.js';
export { takeMail } from './use-cases/take-mail.js';
export { takeDown } from './use-cases/take-down.js';
export { acceptRequest, declineRequest, keepAsIdea, markRead } from './use-cases/decide-request.js';
export { makeForm, publishForm, saveForm } from './use-cases/edit-form.js';
export { makeLink } from './use-cases/form-links.js';
export { giveForm, makeStockForm } from './use-cases/give-form.js';
export { submitRequest } from './use-cases/submit-request.js';

// before anything is started: the demo's loader works without
clientMade.add(async (tx, { id, actor }, now) => void (await giveForm(tx, id, actor, now))); // an agency without one gives it later
linksKept.set('form', {
  table: 'form_links',
  generation: 'link_generation',
  open: 'link_open',
  where: 'client_id = $1 and id = $2',
  name: 'label',
});
linksKept.set('receipt', {
  table: 'requests',
  generation: 'link_generation',
  open: 'link_open',
  where: 'client_id = $1 and id = $2',
  name: 'title',
  mailed: {
    whose:
      'select r.requester_name as name, r.requester_email as email, a.name as agency from requests r cross join agencies a where r.id = $1',
    what: 'what you asked for',
    text: 'See how it stands',
  },
});

@Module({
  controllers: [
    AskController,
    AskUploadsController,
    ReceiptUploadsController,
    ReceiptController,
    KnownController,
    RequestsController,
    MailsController,
    TableController,
    DatesController,
    ClientFormController,
    FormsController,
    SchemasController,
  ],
})
export class IntakeModule implements OnModuleInit {
  constructor(
    private readonly app: App,
    private readonly inbox: Inbox,
    private readonly jobs: Jobs,
  ) {}

  onModuleInit(): void {
    this.jobs.register('clear_mails', async () => void (await clearMails(this.app)), '47 3 * * *');
    this.inbox.register({
      knows: async (address) => (await mailboxClient(this.app, address)) !== undefined,
      take: (came) => takeMail(this.app, came),
    });
  }
}
