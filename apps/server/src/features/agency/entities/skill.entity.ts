import { Entity } from 'typeorm';
import { IdKey, InstantColumn, IntColumn, Made, TextColumn } from '../../../platform/database/columns.js';

/** What a person can do, as the agency calls it. People and steps name it. */
@Made('create unique index uq_skills_name on skills (lower(name))')
@Entity('skills')
export class Skill {
  @IdKey() id: string;
  @TextColumn() name: string;
  @IntColumn({ default: 0 }) position: number;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
}
