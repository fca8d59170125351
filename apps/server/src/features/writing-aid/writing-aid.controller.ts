import { Body, Controller, HttpCode, Param, Post } from '@nestjs/common';
import { AidAskBody, type AidDraftShape } from '@zesting/contract';
import { Access } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem } from '../../platform/http/problem.js';
import { askForDraft, type AskedDraft } from './aid-client.js';

@Controller()
export class WritingAidController {
  constructor(private readonly app: App) {}

  /** Has a writing aid outside of Zesting draft a piece's copy. Nothing is saved: somebody reads it, and puts it in or not. */
  @Post('pieces/:pieceId/drafts')
  @HttpCode(200)
  @Access('piece.write_content', { piece: 'pieceId' })
  async draft(@Param('pieceId') pieceId: string, @Body() body: AidAskBody): Promise<AidDraftShape> {
    const aid = this.app.config.writingAid;
    if (aid === null) throw Problem.of('aid.off');
    const [piece] = await this.app.read<Omit<AskedDraft, keyof AidAskBody>>(
      `select p.title, f.name as format, c.language, coalesce(c.brand -> 'wordsToUse', '[]') as "wordsToUse", coalesce(c.brand -> 'wordsNever', '[]') as "wordsNever"
       from pieces p join formats f on f.id = p.format_id join clients c on c.id = p.client_id where p.id = $1`,
      [pieceId],
    );
    if (!piece) throw Problem.of('access.not_found');
    const draft = await askForDraft(aid, { ...body, ...piece });
    if (draft === undefined) throw Problem.of('aid.silent');
    return { draft };
  }
}
