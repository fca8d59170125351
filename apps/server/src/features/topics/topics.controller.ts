import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post, Put } from '@nestjs/common';
import {
  EditTopicBody,
  NewTopicsBody,
  SubjectBody,
  TopicIdeaBody,
  TreatmentsBody,
  type TopicIdeaMadeShape,
  type TopicsMadeShape,
  type TopicsShape,
} from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { topicsOf } from './queries/topics.js';
import { addTopics, catchTopicIdea, editTopic, setSubject, setTopicAway, setTreatments } from './use-cases/topics.js';

@Controller()
export class TopicsController {
  constructor(private readonly app: App) {}

  /** What a client's content is about, what was made of it, and how long it lasts. */
  @Get('clients/:clientId/topics')
  @Access('topic.read', { client: 'clientId' })
  async list(@Param('clientId') clientId: string): Promise<TopicsShape> {
    const topics = await topicsOf(this.app, clientId);
    if (!topics) throw Problem.of('client.archived');
    return topics;
  }

  @Post('clients/:clientId/topics')
  @Access('topic.edit', { client: 'clientId' })
  async add(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: NewTopicsBody): Promise<TopicsMadeShape> {
    return { topicIds: valueOrProblem(await addTopics(this.app, viewer, clientId, body)) };
  }

  /** Says in which ways subjects can be treated. Needs If-Match with the version of what was there. */
  @Put('clients/:clientId/treatments')
  @HttpCode(204)
  @Access('topic.edit', { client: 'clientId' })
  async treatments(
    @CurrentViewer() viewer: Viewer,
    @Param('clientId') clientId: string,
    @Body() body: TreatmentsBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await setTreatments(this.app, viewer, clientId, body.names, version));
  }

  /** Names a branch anew, or puts it into months. Needs If-Match with its version. */
  @Patch('topics/:topicId')
  @HttpCode(204)
  @Access('topic.edit', { topic: 'topicId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('topicId') topicId: string,
    @Body() body: EditTopicBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await editTopic(this.app, viewer, topicId, body, version));
  }

  /** Archives a branch with all below it. */
  @Delete('topics/:topicId')
  @HttpCode(204)
  @Access('topic.edit', { topic: 'topicId' })
  async archive(@CurrentViewer() viewer: Viewer, @Param('topicId') topicId: string): Promise<void> {
    valueOrProblem(await setTopicAway(this.app, viewer, topicId, true));
  }

  @Post('topics/:topicId/restore')
  @HttpCode(204)
  @Access('topic.edit', { topic: 'topicId' })
  async restore(@CurrentViewer() viewer: Viewer, @Param('topicId') topicId: string): Promise<void> {
    valueOrProblem(await setTopicAway(this.app, viewer, topicId, false));
  }

  /** Catches an idea for one subject, treated in one way. */
  @Post('topics/:topicId/idea')
  @Access('topic.edit', { topic: 'topicId' })
  async idea(@CurrentViewer() viewer: Viewer, @Param('topicId') topicId: string, @Body() body: TopicIdeaBody): Promise<TopicIdeaMadeShape> {
    return { ideaId: valueOrProblem(await catchTopicIdea(this.app, viewer, topicId, body)) };
  }

  /** Says what an idea is about. */
  @Put('ideas/:ideaId/subject')
  @HttpCode(204)
  @Access('topic.edit', { idea: 'ideaId' })
  async ofIdea(@CurrentViewer() viewer: Viewer, @Param('ideaId') ideaId: string, @Body() body: SubjectBody): Promise<void> {
    valueOrProblem(await setSubject(this.app, viewer, { ideaId }, body));
  }

  /** Says what a piece is about. */
  @Put('pieces/:pieceId/subject')
  @HttpCode(204)
  @Access('topic.edit', { piece: 'pieceId' })
  async ofPiece(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string, @Body() body: SubjectBody): Promise<void> {
    valueOrProblem(await setSubject(this.app, viewer, { pieceId }, body));
  }
}
