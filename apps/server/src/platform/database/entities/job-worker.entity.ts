import { Entity, PrimaryColumn } from 'typeorm';
import { IdColumn, Made } from '../columns.js';

/** Which server a worker of the job queue belongs to. */
@Made('alter table job_workers set unlogged')
@Entity('job_workers')
export class JobWorker {
  @PrimaryColumn('text') workerId: string;
  @IdColumn() instanceId: string;
}
