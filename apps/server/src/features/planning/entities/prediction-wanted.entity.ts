import { Check, Entity, PrimaryColumn } from 'typeorm';
import { IdColumn } from '../../../platform/database/columns.js';

/** What the next prediction of load looks at: a piece that changed, a person who lost a step, or with neither the whole agency. */
@Check('ck_predictions_wanted_one', 'num_nonnulls(piece_id, person_id) <= 1')
@Entity('predictions_wanted')
export class PredictionWanted {
  @PrimaryColumn('bigint', { generated: 'identity', generatedIdentity: 'ALWAYS' }) id: number;
  @IdColumn({ nullable: true }) pieceId: string | null;
  @IdColumn({ nullable: true }) personId: string | null;
}
