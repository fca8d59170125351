import { Body, Controller, Get, HttpCode, Post } from '@nestjs/common';
import { AnswerBackBody, type ReceiptShape } from '@zesting/contract';
import { Access, CurrentLink } from '../../platform/access/access.js';
import { VISITED } from '../../platform/access/visited.js';
import { App } from '../../platform/app.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { answerBack, withdrawRequest } from './use-cases/ask-back.js';

/** Of the pieces that came of a request, the one that is least far. */
const LEAST_FAR = `(select p.stage from piece_requests b join pieces p on p.id = b.piece_id where b.request_id = r.id
  order by array_position(array['planned', 'shelved', 'in_production', 'in_review', 'with_client', 'approved', 'scheduled', 'published'], p.stage), p.number limit 1)`;

/** The requester's page: how the request stands; of one that was merged, how the one stands that it was merged into. */
@Controller('receipts/:linkId')
export class ReceiptController {
  constructor(private readonly app: App) {}

  @Get()
  @Access('receipt.read')
  async show(@CurrentLink() requestId: string): Promise<ReceiptShape> {
    const [row] = await this.app.read<ReceiptShape>(
      `select r.number, r.title, coalesce(v.content ->> 'language', 'en') as language, ${VISITED}, r.received_at as "receivedAt",
         r.wish_on as "wishOn", r.state = 'merged' as "isMerged", coalesce(m.state, r.state) as state,
         coalesce(m.decline_reason, r.decline_reason) as "declineReason",
         case when p.stage in ('planned', 'shelved') then 'planned' when p.stage in ('in_production', 'in_review') then 'in_production'
           when p.stage = 'with_client' then 'with_client' when p.stage in ('approved', 'scheduled') then 'approved' else p.stage end as progress,
         r.state in ('new', 'asked_back') as "canWithdraw",
         coalesce((select jsonb_agg(jsonb_build_object('author', t.author, 'text', t.text, 'at', t.at) order by t.at, t.id)
           from request_messages t where t.request_id = r.id), '[]') as messages,
         array(select name from assets f where f.request_id = r.id order by f.created_at, f.id) as files
       from requests r join clients c on c.id = r.client_id left join form_versions v on v.form_id = r.form_id and v.number = r.form_version
         left join requests m on m.id = r.merged_into cross join agencies a left join lateral ${LEAST_FAR} p on true where r.id = $1`,
      [requestId],
    );
    if (!row) throw new Error('the request went away');
    return row;
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
