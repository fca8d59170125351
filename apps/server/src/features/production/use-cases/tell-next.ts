import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { tell, tellManagers } from '../../notices/index.js';
import type { Piece } from '../entities/piece.entity.js';
import type { Step } from '../entities/step.entity.js';
import { stepKey } from '../piece-store.js';

/**
 * Tells whoever has a step that it can start; managers, where the client has it or nobody.
 * @param because what happened, as a sentence
 */
export async function tellNext(
  app: App,
  tx: Tx,
  viewer: { readonly personId: string | null },
  piece: Piece,
  because: string,
  next: Step,
): Promise<void> {
  const { clientId } = piece;
  const path = `/pieces/${piece.id}`;
  const key = stepKey(next);
  if (next.kind === 'sign_off')
    await tellManagers(app, tx, {
      clientId,
      pieceId: piece.id,
      heading: `Ready for the client: ${piece.title}`,
      text: `${because} It can go to the client.`,
      path: '/sign-off',
      key,
    });
  else if (next.kind === 'deliver')
    await tellManagers(app, tx, {
      clientId,
      pieceId: piece.id,
      heading: `To be asked of the client: ${next.title}, ${piece.title}`,
      text: `${because} “${next.title}” is the client’s to bring.`,
      path: `/pieces/${piece.id}?open=ask-${next.id}`,
      key,
    });
  else if (next.doerId === null)
    await tellManagers(app, tx, {
      clientId,
      pieceId: piece.id,
      heading: `Nobody has “${next.title}”: ${piece.title}`,
      text: `${because} “${next.title}” comes next and nobody has it.`,
      path,
      key,
    });
  else if (next.doerId !== viewer.personId)
    await tell(app, tx, next.doerId, {
      clientId,
      heading: `${next.title}: ${piece.title}`,
      text: `${because} “${next.title}” is yours and can start.`,
      path,
      key,
    });
}

/** Where the agency decides for the client, the named person hears that the piece waits for them. */
export async function tellDecider(app: App, tx: Tx, viewer: Viewer, piece: Piece): Promise<void> {
  const [row] = await rowsOf<{ person_id: string }>(
    tx,
    "select policy ->> 'personId' as person_id from clients where id = $1 and policy ->> 'kind' = 'agency'",
    [piece.clientId],
  );
  if (row && row.person_id !== viewer.personId)
    await tell(app, tx, row.person_id, {
      clientId: piece.clientId,
      heading: `Yours to approve: ${piece.title}`,
      text: `“${piece.title}” is checked and waits for your approval on the client’s standing authority.`,
      path: `/pieces/${piece.id}`,
    });
}
