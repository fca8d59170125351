import type { GiveOneBody, StaffingOutcomeShape } from '@zesting/contract';
import { fail, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { bestOfChoices } from '../../planning/index.js';
import { latePieces } from './late-pieces.js';

/** What it would come to if steps were given as somebody chose. Nothing is stored. */
export async function outcomeOfGives(
  app: App,
  { clientIds }: Viewer,
  gives: readonly GiveOneBody[],
): Promise<Result<StaffingOutcomeShape, { code: 'access.not_found' }>> {
  const chosen = Object.fromEntries(gives.map(({ stepId, personId }) => [stepId, personId]));
  const [known] = await app.read<{ steps: number; people: number }>(
    `select (select count(*) from steps s join pieces p on p.id = s.piece_id where s.id = any($1) and p.client_id = any($2)) as steps,
       (select count(*) from people where id = any($3) and active) as people`,
    [Object.keys(chosen), clientIds, Object.values(chosen)],
  );
  if (known?.steps !== Object.keys(chosen).length || known.people !== new Set(Object.values(chosen)).size)
    return fail({ code: 'access.not_found' });
  // nobody else is thought of
  const able = Object.fromEntries(gives.map(({ stepId, personId }) => [stepId, [{ personId, fit: 0, hourly: 0 }]]));
  const outcome = await bestOfChoices(app, { able, choices: [chosen] });
  const ends = Object.entries(outcome.steps).map(([stepId, end]) => ({ stepId, ...end }));
  return ok({ ends, ...(await latePieces(app, clientIds, outcome)) });
}
