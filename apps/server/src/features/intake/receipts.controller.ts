import { Body, Controller, Get, HttpCode, Post } from '@nestjs/common';
import { AnswerBackBody, type ReceiptShape } from '@zesting/contract';
import { Access, CurrentLink } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { receiptOf } from './queries/receipt.js';
import { answerBack, withdrawRequest } from './use-cases/ask-back.js';

/** The requester's page: how the request stands; of one that was merged, how the one stands that it was merged into. */
@Controller('receipts/:linkId')
export class ReceiptController {
  constructor(private readonly app: App) {}

  @Get()
  @Access('receipt.read')
  show(@CurrentLink() requestId: string): Promise<ReceiptShape> {
    return receiptOf(this.app, requestId);
  }

  /** Takes what the requester writes, with files that were sent before. */
  @Post('messages')
  @HttpCode(200)
  @Access('receipt.answer')
  async answer(@CurrentLink() requestId: string, @Body() body: AnswerBackBody): Promise<ReceiptShape> {
    valueOrProblem(await answerBack(this.app, requestId, { text: body.text.trim(), assetIds: body.assetIds }));
    return this.show(requestId);
  }

  /** Takes the request back, while nobody has decided. */
  @Post('withdraw')
  @HttpCode(200)
  @Access('receipt.answer')
  async withdraw(@CurrentLink() requestId: string): Promise<ReceiptShape> {
    valueOrProblem(await withdrawRequest(this.app, requestId));
    return this.show(requestId);
  }
}
