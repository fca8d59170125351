import { useQuery } from '@tanstack/react-query';
import type { PieceShape } from '@zesting/contract';
import { peopleQuery } from '../../api/people';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';

/** Who answers for a piece: named for it, or whoever answers for the client's. Kept as soon as it is chosen; read by who does not manage. */
export function LeadField({ piece }: { piece: PieceShape }) {
  const { leadId, lead, canManage } = piece;
  const { data: people } = useQuery({ ...peopleQuery, enabled: canManage });
  const save = useWrite((next: string | null) =>
    call(`/pieces/${piece.id}`, { method: 'PATCH', body: { leadId: next }, version: piece.version }),
  );
  if (!canManage)
    return (
      lead && (
        <span className="text-[13px]">
          <span className="text-muted">Answers for it</span> {lead.name}
        </span>
      )
    );
  const chosen = save.isPending ? save.variables : leadId;
  const could = (people ?? []).filter(({ active, role }) => active && role !== 'freelance');
  const hasLeft = leadId !== null && could.every(({ id }) => id !== leadId);
  return (
    <label className="inline-flex items-center gap-2 text-[13px]">
      <span className="text-muted">Answers for it</span>
      <select
        className="field w-auto max-w-44 text-[13px]"
        value={chosen ?? ''}
        onChange={({ target }) => save.mutate(target.value || null)}
      >
        <option value="">{leadId === null && lead ? `${lead.name} (client’s)` : 'as for the client'}</option>
        {hasLeft && people && <option value={leadId}>somebody who has left</option>}
        {could.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
