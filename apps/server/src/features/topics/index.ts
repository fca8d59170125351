import { Module } from '@nestjs/common';
import { TopicsController } from './topics.controller.js';

export { addTopics, catchTopicIdea, editTopic, setSubject, setTreatments } from './use-cases/topics.js';
export { topicsOf } from './queries/topics.js';

@Module({ controllers: [TopicsController] })
export class TopicsModule {}
