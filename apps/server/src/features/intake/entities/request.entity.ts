import { Entity, PrimaryColumn } from 'typeorm';
import type { Answers, FormField } from '@zesting/core';
import { DayColumn, IdColumn, InstantColumn, IntColumn, JsonColumn, TextColumn } from '../../../platform/database/columns.js';

/** One filled-in answer set, with the questions as they were asked. */
@Entity('requests')
export class Request {
  @PrimaryColumn('uuid', { generated: 'uuid' }) id: string;
  @IntColumn({ generated: 'increment', insert: false, update: false }) number: number;
  @IdColumn() clientId: string;
  @IdColumn() formId: string;
  @JsonColumn() fields: FormField[];
  @JsonColumn() answers: Answers;
  @TextColumn() title: string;
  @DayColumn({ nullable: true }) wishOn: string | null;
  @TextColumn() requesterName: string;
  @TextColumn() requesterEmail: string;
  @TextColumn() state: 'new' | 'accepted' | 'declined';
  @TextColumn({ nullable: true }) declineReason: string | null;
  @InstantColumn({ nullable: true }) readAt: string | null;
  @InstantColumn() receivedAt: string;
  @InstantColumn({ nullable: true }) decidedAt: string | null;
  @IntColumn() version: number;
  /** raised to revoke the receipt's link */
  @IntColumn({ default: 1 }) linkGeneration: number;
}
