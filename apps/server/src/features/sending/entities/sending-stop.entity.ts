import { Entity } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, Made, Refers, TextColumn } from '../../../platform/database/columns.js';

/** That nothing goes out by itself: of a channel, of a client, or at all where both are null. Lifted, it is gone; the record knows of it. */
@Made('create unique index uq_sending_stops_scope on sending_stops (client_id, channel_id) nulls not distinct')
@Entity('sending_stops')
export class SendingStop {
  @IdKey() id: string;
  @Refers('Client', 'fk_sending_stops_client')
  @IdColumn({ nullable: true })
  clientId: string | null;
  @Refers('Channel', 'fk_sending_stops_channel')
  @IdColumn({ nullable: true })
  channelId: string | null;
  @TextColumn() why: string;
  @TextColumn() stoppedBy: string;
  @InstantColumn() stoppedAt: string;
}
