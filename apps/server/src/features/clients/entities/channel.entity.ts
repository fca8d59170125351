import { Check, Entity } from 'typeorm';
import {
  BoolColumn,
  IdColumn,
  IdKey,
  InstantColumn,
  IntColumn,
  Made,
  Refers,
  TextColumn,
  TimeColumn,
} from '../../../platform/database/columns.js';

/** Somewhere a client publishes, with what fits there. */
@Check(
  'ck_channels_limits',
  '(coalesce(copy_limit, 1) > 0) and (coalesce(tag_limit, 0) >= 0) and (coalesce(media_limit, 1) > 0) and (coalesce(min_width, 1) > 0) and (lead_days >= 0) and (coalesce(clip_min_seconds, 1) > 0) and (coalesce(clip_max_seconds, 1) > 0) and (coalesce(file_limit_mb, 1) > 0) and (coalesce(folds_at, 1) > 0)',
)
@Made('create index ix_channels_client on channels (client_id, position)')
@Entity('channels')
export class Channel {
  @IdKey() id: string;
  @Refers('Client', 'fk_channels_client')
  @IdColumn()
  clientId: string;
  @TextColumn() kind: string;
  @TextColumn() name: string;
  @IntColumn({ nullable: true }) copyLimit: number | null;
  @TextColumn({ default: () => "'1:1'" }) ratio: string;
  @IntColumn({ default: 0 }) leadDays: number;
  @TimeColumn({ nullable: true }) usualTime: string | null;
  @IntColumn({ default: 0 }) position: number;
  @IntColumn({ nullable: true }) tagLimit: number | null;
  @IntColumn({ nullable: true }) mediaLimit: number | null;
  @BoolColumn({ default: false }) countsTags: boolean;
  @BoolColumn({ default: true }) linksWork: boolean;
  @BoolColumn({ default: false }) needsMedia: boolean;
  @IntColumn({ nullable: true }) minWidth: number | null;
  @BoolColumn({ default: true }) hasAddress: boolean;
  @TextColumn({ nullable: true }) postingAddress: string | null;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @TextColumn({ array: true, default: () => "'{}'" }) otherShapes: string[];
  @BoolColumn({ default: false }) cutsMedia: boolean;
  @IntColumn({ nullable: true }) clipMinSeconds: number | null;
  @IntColumn({ nullable: true }) clipMaxSeconds: number | null;
  @IntColumn({ nullable: true }) fileLimitMb: number | null;
  @IntColumn({ default: 0 }) safeTop: number;
  @IntColumn({ default: 0 }) safeBottom: number;
  @IntColumn({ default: 0 }) safeSides: number;
  @IntColumn({ nullable: true }) foldsAt: number | null;
}
