import { createHash } from 'node:crypto';
import { fail, ok, type InstantText, type Result } from '@zesting/core';
import { rowsOf, type Tx } from '../database/transaction.js';
import { IdempotencyKey } from '../database/entities/idempotency-key.entity.js';

export interface IdempotentCall {
  readonly key: string;
  readonly caller: string;
  readonly operation: string;
  readonly body: unknown;
  readonly now: InstantText;
}

/**
 * Runs `work` once per key, caller and operation, inside the caller's transaction. A repeat gets the first answer; one that
 * comes while the first still runs waits for it, since the row is unique.
 * @returns the answer, or `idempotency.other_body` when the key was used for something else
 */
export async function once<T, F extends { readonly code: string }>(
  tx: Tx,
  call: IdempotentCall,
  work: () => Promise<Result<T, F>>,
): Promise<Result<T, F | { readonly code: 'idempotency.other_body' }>> {
  const hash = createHash('sha256').update(JSON.stringify(call.body)).digest('hex');
  const where = [call.key, call.caller, call.operation];
  const claimed = await rowsOf<{ key: string }>(
    tx,
    'insert into idempotency_keys (key, caller, operation, request_hash, created_at) values ($1, $2, $3, $4, $5) on conflict do nothing returning key',
    [...where, hash, call.now],
  );
  if (claimed.length === 0) {
    const [row] = await rowsOf<{ request_hash: string; answer: T }>(
      tx,
      'select request_hash, answer from idempotency_keys where key = $1 and caller = $2 and operation = $3',
      where,
    );
    if (!row) throw new Error('the idempotency row went away');
    return row.request_hash === hash ? ok(row.answer) : fail({ code: 'idempotency.other_body' });
  }
  const result = await work();
  if (result.ok)
    await tx.update(IdempotencyKey, { key: call.key, caller: call.caller, operation: call.operation }, { answer: result.value as object });
  return result;
}
