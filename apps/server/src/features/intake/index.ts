import { Module } from '@nestjs/common';
import { AskController, ReceiptController } from './ask.controller.js';
import { RequestsController } from './requests.controller.js';

export { Request } from './entities/request.entity.js';
export { acceptRequest, declineRequest, markRead } from './use-cases/decide-request.js';
export { giveForm, type DefaultForm } from './use-cases/give-form.js';
export { submitRequest } from './use-cases/submit-request.js';

@Module({ controllers: [AskController, ReceiptController, RequestsController] })
export class IntakeModule {}
