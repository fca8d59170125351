import { Entity, PrimaryColumn } from 'typeorm';
import { IdColumn, InstantColumn, JsonColumn, Made, Refers, TextColumn } from '../columns.js';

/** Who changed what, when. */
@Made('create index ix_activities_client on activities (client_id, id desc)')
@Made('create index ix_activities_thing on activities (thing, thing_id, id desc)')
@Entity('activities')
export class Activity {
  @PrimaryColumn('bigint', { generated: 'identity', generatedIdentity: 'ALWAYS' }) id: number;
  @Refers('Client', 'fk_activities_client')
  @IdColumn({ nullable: true })
  clientId: string | null;
  @TextColumn() thing: string;
  @IdColumn() thingId: string;
  @TextColumn() verb: string;
  @TextColumn() actor: string;
  @JsonColumn({ default: () => "'{}'" }) detail: Record<string, unknown>;
  @InstantColumn() at: string;
}
