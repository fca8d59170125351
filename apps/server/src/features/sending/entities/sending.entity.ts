import { SENDING_CODES, SENDING_STATES, type SendingCode, type SendingState } from '@zesting/core';
import { Check, Entity, Index } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, IntColumn, oneOf, Refers, TextColumn } from '../../../platform/database/columns.js';

export const COMMENT_STATES = ['none', 'waiting', 'placed', 'given_up'] as const;

/** One way of a placement to its channel: what was sent, and what came of it. Kept for good; one at a time is open. */
@Check('ck_sendings_state', oneOf('state', SENDING_STATES))
@Check('ck_sendings_code', oneOf('code', SENDING_CODES))
@Check('ck_sendings_comment_state', oneOf('comment_state', COMMENT_STATES))
@Check('ck_sendings_settled', "(settled_at is null) = (state in ('claimed', 'posted', 'unsure'))")
@Index('uq_sendings_open', ['placementId'], { unique: true, where: 'settled_at is null' })
@Index('ix_sendings_placement', ['placementId', 'claimedAt'])
@Index('ix_sendings_next', ['nextAt'], { where: 'next_at is not null' })
@Index('ix_sendings_channel', ['channelId', 'postedAt'], { where: 'posted_at is not null' })
@Entity('sendings')
export class Sending {
  @IdKey() id: string;
  @Refers('Placement', 'fk_sendings_placement')
  @IdColumn()
  placementId: string;
  @Refers('Client', 'fk_sendings_client')
  @IdColumn()
  clientId: string;
  @Refers('Channel', 'fk_sendings_channel')
  @IdColumn()
  channelId: string;
  /** what is sent: the version, and the digests of the shared part and of the channel's; null where it was not ready */
  @Refers('Version', 'fk_sendings_version')
  @IdColumn({ nullable: true })
  versionId: string | null;
  @TextColumn({ array: true, nullable: true }) digests: string[] | null;
  @InstantColumn() publishAt: string;
  /** until then it may be put again by itself */
  @InstantColumn() untilAt: string;
  /** our name for it at the channel; another one once the channel takes the old one no more */
  @IdColumn() reference: string;
  @TextColumn() state: SendingState;
  @IntColumn({ default: 0 }) tries: number;
  @IntColumn({ default: 0 }) asks: number;
  @TextColumn({ nullable: true }) code: SendingCode | null;
  /** the channel's words, or what was not ready */
  @TextColumn({ nullable: true }) reason: string | null;
  /** who sent it now; null: its time had come */
  @TextColumn({ nullable: true }) askedBy: string | null;
  /** who said what became of it; null: the channel did */
  @TextColumn({ nullable: true }) settledBy: string | null;
  @InstantColumn() claimedAt: string;
  /** since then something may be out under its reference */
  @InstantColumn({ nullable: true }) postedAt: string | null;
  @InstantColumn({ nullable: true }) nextAt: string | null;
  @InstantColumn({ nullable: true }) settledAt: string | null;
  @TextColumn() commentState: (typeof COMMENT_STATES)[number];
  @IntColumn({ default: 0 }) commentTries: number;
}
