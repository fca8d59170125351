import { Module, type OnModuleInit } from '@nestjs/common';
import { App } from '../../platform/app.js';
import { Inbox } from '../../platform/mail/inbox.js';
import { DatesController } from './dates.controller.js';
import { FormsController, SchemasController } from './forms.controller.js';
import { AskController } from './ask.controller.js';
import { KnownController } from './known.controller.js';
import { MailsController } from './mails.controller.js';
import { ReceiptController } from './receipts.controller.js';
import { AskUploadsController, ReceiptUploadsController } from './uploads.controller.js';
import { RequestsController } from './requests.controller.js';
import { TableController } from './table.controller.js';
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
    FormsController,
    SchemasController,
  ],
})
export class IntakeModule implements OnModuleInit {
  constructor(
    private readonly app: App,
    private readonly inbox: Inbox,
  ) {}

  onModuleInit(): void {
    this.inbox.register({
      knows: async (address) => (await mailboxClient(this.app, address)) !== undefined,
      take: (came) => takeMail(this.app, came),
    });
  }
}
