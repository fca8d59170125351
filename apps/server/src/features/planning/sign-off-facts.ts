import type { Asked, DecisionFact, SignOffPolicy } from '@zesting/core';

/** SQL: all decisions on the piece whose id that expression gives, oldest first, as core's `DecisionFact`s, each with the round it was given in. */
export const decisionFacts = (pieceId: string): string =>
  `coalesce((select jsonb_agg(jsonb_build_object('contactId', d.contact_id, 'verdict', d.verdict, 'digests', d.digests, 'round', coalesce(pi.round, 0)) order by d.sequence)
     from decisions d left join packet_items pi on pi.packet_id = d.packet_id and pi.piece_id = d.piece_id where d.piece_id = ${pieceId}), '[]')`;

/** SQL: those of an array of contacts who no longer sign off. */
export const goneFrom = (contactIds: string): string =>
  `coalesce((select jsonb_agg(g.id) from unnest(${contactIds}) g (id)
     where not exists (select 1 from contacts x where x.id = g.id and x.can_sign_off and x.archived_at is null)), '[]')`;

/** What a packet froze, as it is read from the database. */
export interface AskedRow {
  policy: SignOffPolicy;
  approver_ids: string[];
  gone_ids: string[];
}

/** Whom a packet asks in a round, as core sees it. */
export const toAsked = (row: AskedRow, round: number): Asked => ({
  policy: row.policy,
  approverIds: row.approver_ids,
  goneIds: row.gone_ids,
  round,
});

export type { DecisionFact };
