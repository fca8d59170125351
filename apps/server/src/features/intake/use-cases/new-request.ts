import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { Request } from '../entities/request.entity.js';

/** What is known of a request when it comes; the rest is the same for every one. */
export type NewRequest = Pick<
  Request,
  'clientId' | 'way' | 'title' | 'wishOn' | 'requesterName' | 'requesterEmail' | 'ownerId' | 'readAt' | 'receivedAt'
> &
  Partial<Pick<Request, 'formId' | 'formVersion' | 'linkId' | 'items' | 'answers' | 'contactId' | 'takes'>>;

/** Puts a request that waits for a decision, in the caller's transaction. @returns it, and the number it got */
export async function insertRequest(tx: Tx, coming: NewRequest): Promise<{ request: Request; number: number }> {
  const request = await tx.save(
    tx.create(Request, {
      formId: null,
      formVersion: null,
      linkId: null,
      items: [],
      answers: {},
      contactId: null,
      takes: {},
      ...coming,
      state: 'new',
      declineReason: null,
      mergedInto: null,
      decidedAt: null,
      version: 1,
      linkGeneration: 1,
    }),
  );
  const [row] = await rowsOf<{ number: number }>(tx, 'select number from requests where id = $1', [request.id]);
  return { request, number: row?.number ?? 0 };
}
