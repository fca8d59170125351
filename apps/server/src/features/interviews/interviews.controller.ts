import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post, Put, Query } from '@nestjs/common';
import {
  AskInterviewBody,
  EditInterviewBody,
  InterviewAnswerBody,
  InterviewStateBody,
  NewQuestionSetBody,
  QuestionSetBody,
  type InterviewMadeShape,
  type InterviewShape,
  type InterviewsShape,
  type QuestionSetMadeShape,
  type QuestionSetsShape,
} from '@zesting/contract';
import { Access, CurrentLink, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { interviewsAbout, interviewShape, interviewsOf, questionSetsOf } from './queries/interviews.js';
import { answerQuestion, askInterview, editInterview, setInterviewState } from './use-cases/interviews.js';
import { addQuestionSet, editQuestionSet, setQuestionSetAway } from './use-cases/question-sets.js';

@Controller()
export class InterviewsController {
  constructor(private readonly app: App) {}

  /** Questions that are out, or were: of one client or all. */
  @Get('interviews')
  @Access('interview.list')
  list(
    @CurrentViewer() viewer: Viewer,
    @Query('clientId') clientId?: string,
    @Query('asked') asked?: string,
    @Query('after') after?: string,
  ): Promise<InterviewsShape> {
    if (clientId !== undefined && !viewer.clientIds.includes(clientId)) throw Problem.of('access.not_found');
    return interviewsOf(
      this.app,
      clientId === undefined ? viewer.clientIds : [clientId],
      asked === 'closed' ? 'closed' : 'open',
      Number(after ?? 0),
    );
  }

  /** Sets of questions of one client, or of all; those that fit an idea or a piece first. */
  @Get('question-sets')
  @Access('interview.list')
  sets(
    @CurrentViewer() viewer: Viewer,
    @Query('clientId') clientId?: string,
    @Query('ideaId') ideaId?: string,
    @Query('pieceId') pieceId?: string,
  ): Promise<QuestionSetsShape> {
    if (clientId !== undefined && !viewer.clientIds.includes(clientId)) throw Problem.of('access.not_found');
    return questionSetsOf(this.app, {
      clientIds: clientId === undefined ? viewer.clientIds : [clientId],
      ideaId: ideaId ?? null,
      pieceId: pieceId ?? null,
    });
  }

  @Post('question-sets')
  @Access('interview.list')
  async addSet(@CurrentViewer() viewer: Viewer, @Body() body: NewQuestionSetBody): Promise<QuestionSetMadeShape> {
    return { setId: valueOrProblem(await addQuestionSet(this.app, viewer, body)) };
  }

  /** Changes a set of questions. Needs If-Match with its version. */
  @Put('question-sets/:setId')
  @HttpCode(204)
  @Access('interview.edit', { questionSet: 'setId' })
  async editSet(
    @CurrentViewer() viewer: Viewer,
    @Param('setId') setId: string,
    @Body() body: QuestionSetBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await editQuestionSet(this.app, viewer, setId, body, version));
  }

  @Delete('question-sets/:setId')
  @HttpCode(204)
  @Access('interview.edit', { questionSet: 'setId' })
  async archiveSet(@CurrentViewer() viewer: Viewer, @Param('setId') setId: string): Promise<void> {
    valueOrProblem(await setQuestionSetAway(this.app, viewer, setId, true));
  }

  @Post('question-sets/:setId/restore')
  @HttpCode(204)
  @Access('interview.edit', { questionSet: 'setId' })
  async restoreSet(@CurrentViewer() viewer: Viewer, @Param('setId') setId: string): Promise<void> {
    valueOrProblem(await setQuestionSetAway(this.app, viewer, setId, false));
  }

  /** Puts questions to a contact, or to somebody whose answers the team writes down. */
  @Post('clients/:clientId/interviews')
  @Access('interview.edit', { client: 'clientId' })
  async ask(
    @CurrentViewer() viewer: Viewer,
    @Param('clientId') clientId: string,
    @Body() body: AskInterviewBody,
  ): Promise<InterviewMadeShape> {
    return { interviewId: valueOrProblem(await askInterview(this.app, viewer, clientId, body)) };
  }

  /** What was asked about an idea, and answered. */
  @Get('ideas/:ideaId/interviews')
  @Access('interview.edit', { idea: 'ideaId' })
  ofIdea(@Param('ideaId') ideaId: string): Promise<InterviewShape[]> {
    return interviewsAbout(this.app, { ideaId });
  }

  /** What was asked about a piece, also while it was an idea: belongs to its brief. */
  @Get('pieces/:pieceId/interviews')
  @Access('piece.read', { piece: 'pieceId' })
  ofPiece(@Param('pieceId') pieceId: string): Promise<InterviewShape[]> {
    return interviewsAbout(this.app, { pieceId });
  }

  @Get('interviews/:interviewId')
  @Access('interview.edit', { interview: 'interviewId' })
  one(@Param('interviewId') interviewId: string): Promise<InterviewShape> {
    return interviewShape(this.app, interviewId);
  }

  /** Names it anew, gives it another day, or asks more. Needs If-Match with its version. */
  @Patch('interviews/:interviewId')
  @HttpCode(204)
  @Access('interview.edit', { interview: 'interviewId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('interviewId') interviewId: string,
    @Body() body: EditInterviewBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await editInterview(this.app, viewer, interviewId, body, version));
  }

  /** Closes it, or opens it again. */
  @Post('interviews/:interviewId/state')
  @HttpCode(204)
  @Access('interview.edit', { interview: 'interviewId' })
  async state(@CurrentViewer() viewer: Viewer, @Param('interviewId') interviewId: string, @Body() body: InterviewStateBody): Promise<void> {
    valueOrProblem(await setInterviewState(this.app, viewer, interviewId, body.state));
  }

  /** Writes down an answer that was heard. Needs If-Match with the question's version. */
  @Put('questions/:questionId/answer')
  @HttpCode(204)
  @Access('interview.edit', { question: 'questionId' })
  async answer(
    @CurrentViewer() viewer: Viewer,
    @Param('questionId') questionId: string,
    @Body() body: InterviewAnswerBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await answerQuestion(this.app, { viewer }, questionId, body.text, version));
  }
}

/** Answering in the client's room. */
@Controller('room/:linkId')
export class RoomInterviewsController {
  constructor(private readonly app: App) {}

  /** Takes a contact's answer. Needs If-Match with the question's version. */
  @Put('questions/:questionId/answer')
  @HttpCode(204)
  @Access('interview.answer')
  async answer(
    @CurrentLink() contactId: string,
    @Param('questionId') questionId: string,
    @Body() body: InterviewAnswerBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await answerQuestion(this.app, { contactId }, questionId, body.text, version));
  }
}
