import { Module } from '@nestjs/common';
import { InterviewsController, RoomInterviewsController } from './interviews.controller.js';

export { answerQuestion, askInterview } from './use-cases/interviews.js';
export { addQuestionSet } from './use-cases/question-sets.js';
export { interviewsFor } from './queries/interviews.js';

@Module({ controllers: [InterviewsController, RoomInterviewsController] })
export class InterviewsModule {}
