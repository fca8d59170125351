import { Activity } from './activity.entity.js';
import { IdempotencyKey } from './idempotency-key.entity.js';
import { JobWorker } from './job-worker.entity.js';
import { Session } from './session.entity.js';

/** What the platform keeps: every feature writes it through the platform. */
export const PLATFORM_ENTITIES = [Activity, IdempotencyKey, JobWorker, Session] as const;
