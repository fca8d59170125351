import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { Interview, InterviewQuestion } from './entities/interview.entity.js';
import { QuestionSet } from './entities/question-set.entity.js';
import { InterviewsModule } from './index.js';

const policies = {
  'interview.list': { roles: MANAGERS },
  'interview.edit': { roles: MANAGERS },
  'interview.answer': { link: 'room' },
} as const satisfies Record<string, Policy>;

const owners = {
  questionSet: 'select client_id, null::uuid as piece_id, null::uuid as request_id from question_sets where id = $1',
  interview: 'select client_id, null::uuid as piece_id, null::uuid as request_id from interviews where id = $1',
  question:
    'select v.client_id, null::uuid as piece_id, null::uuid as request_id from interview_questions q join interviews v on v.id = q.interview_id where q.id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

/** Questions that draw knowledge from contacts and experts, and what was answered. */
export const feature: Feature = {
  name: 'interviews',
  module: InterviewsModule,
  entities: [QuestionSet, Interview, InterviewQuestion],
  policies,
  owners,
};
