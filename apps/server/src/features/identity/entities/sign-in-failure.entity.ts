import { Check, Entity, Index, PrimaryColumn } from 'typeorm';
import { InstantColumn, IntColumn } from '../../../platform/database/columns.js';

/** Failed sign-ins in a row, by account, by address and by both. Accounts are kept as digests: anything can be typed for one. */
@Check('ck_sign_in_failures_kind', "kind in ('account', 'address', 'pair')")
@Index('ix_sign_in_failures_last_at', ['lastAt'])
@Entity('sign_in_failures')
export class SignInFailure {
  @PrimaryColumn('text') kind: 'account' | 'address' | 'pair';
  @PrimaryColumn('text') who: string;
  @IntColumn() failures: number;
  @InstantColumn() lastAt: string;
  @InstantColumn({ nullable: true }) lockedUntil: string | null;
}
