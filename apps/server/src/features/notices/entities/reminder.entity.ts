import { Entity, PrimaryColumn } from 'typeorm';
import { InstantColumn } from '../../../platform/database/columns.js';

/** Who was reminded of what, once per stage. */
@Entity('reminders')
export class Reminder {
  @PrimaryColumn('text') thing: string;
  @PrimaryColumn('uuid') thingId: string;
  @PrimaryColumn('uuid') receiverId: string;
  @PrimaryColumn('text') stage: string;
  @PrimaryColumn('date') dueOn: string;
  @InstantColumn() sentAt: string;
}
