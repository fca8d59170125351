import { useQuery } from '@tanstack/react-query';
import type { TeamLeadBody, TeamRoleBody, TeamRoleShape, TeamShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { teamQuery } from '../../api/clients';
import { call, wordsOf } from '../../lib/api';
import { count, minutesWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { SKILL_LEVELS } from '../../lib/words';
import { Empty, Failed, Loading } from '../../ui/page';
import { Tag } from '../../ui/tags';

/** Who usually does what for the client. They are proposed when a piece begins, and stand first where a step is given away. */
export function TeamSection({ clientId }: { clientId: string }) {
  const team = useQuery(teamQuery(clientId));
  const roles = team.data?.roles ?? [];
  const unfilled = roles.filter(({ able, routes }) => able.length === 0 && routes > 0);
  return (
    <section aria-labelledby="team">
      {team.data && <LeadLine clientId={clientId} team={team.data} onStale={() => void team.refetch()} />}
      <h2 id="team" className="text-lg">
        Who usually does what
      </h2>
      <p className="text-muted mb-3 max-w-3xl">
        They are proposed when a piece begins, and stand first where a step is given. Without anybody, whoever is free first is proposed.
        What has begun stays as it is.
      </p>
      {team.isError && <Failed message={wordsOf(team.error)} onRetry={() => void team.refetch()} />}
      {team.isPending && <Loading />}
      {team.data && roles.length === 0 && (
        <Empty title="There are no skills yet">The agency’s skills are listed under Setup, Settings; steps of routes ask for them.</Empty>
      )}
      {unfilled.length > 0 && (
        <p className="text-rhubarb font-medium mb-2">
          Nobody can do {unfilled.map(({ skill }) => skill).join(', ')}: routes have steps of it, and nobody who may work for this client
          has it.
        </p>
      )}
      <ul className="max-w-4xl">
        {roles.map((role) => (
          <RoleLine key={role.skill} clientId={clientId} role={role} onStale={() => void team.refetch()} />
        ))}
      </ul>
    </section>
  );
}

/** Who answers for the client's pieces: they hear what is to be heard of them, and stand beside each. */
function LeadLine({ clientId, team: { lead, couldLead }, onStale }: { clientId: string; team: TeamShape; onStale: () => void }) {
  const put = useWrite((body: TeamLeadBody) => call(`/clients/${clientId}/team/lead`, { method: 'PUT', body }), { quiet: true });
  const [wrong, setWrong] = useState<string>();
  const choose = (personId: string | null) =>
    put.mutate(
      { personId, wasId: lead?.personId ?? null },
      {
        onSuccess: () => setWrong(undefined),
        onError: (problem) => {
          setWrong(wordsOf(problem));
          onStale();
        },
      },
    );
  return (
    <div className="mb-5 max-w-3xl">
      <label htmlFor="team-lead" className="font-display font-semibold text-lg block">
        Who answers for its pieces
      </label>
      <p className="text-muted mb-1.5">
        They alone hear when a piece is approved, comes back, or has nobody next, unless somebody else is named on the piece. Where nobody
        is named, all who manage the client hear.
      </p>
      <select
        id="team-lead"
        className="field max-w-xs"
        disabled={put.isPending}
        value={lead?.personId ?? ''}
        onChange={({ target }) => choose(target.value || null)}
      >
        <option value="">Nobody in particular</option>
        {lead && couldLead.every(({ personId }) => personId !== lead.personId) && <option value={lead.personId}>{lead.name}</option>}
        {couldLead.map(({ personId, name }) => (
          <option key={personId} value={personId}>
            {name}
          </option>
        ))}
      </select>
      {lead?.hasLeft && <p className="text-rhubarb text-[13px] mt-1">{lead.name} has left: nobody answers until somebody else is named.</p>}
      {wrong && (
        <p role="alert" className="text-rhubarb text-[13px] mt-1">
          {wrong}
        </p>
      )}
    </div>
  );
}

const CANNOT: Record<NonNullable<TeamRoleShape['cannot']>, string> = {
  left: 'has left',
  unskilled: 'does not have the skill any more',
  barred: 'must not work for this client',
};

function RoleLine({ clientId, role, onStale }: { clientId: string; role: TeamRoleShape; onStale: () => void }) {
  const { skill, personId, personName, cannot, routes, able } = role;
  const [wrong, setWrong] = useState<string>();
  const put = useWrite((body: TeamRoleBody) => call(`/clients/${clientId}/team`, { method: 'PUT', body }), { quiet: true });
  const chosen = able.find((person) => person.personId === personId);
  const choose = (next: string | null) =>
    put.mutate(
      { skill, personId: next, wasId: personId },
      {
        onSuccess: () => {
          setWrong(undefined);
          const name = able.find((person) => person.personId === next)?.name;
          toast(name ? `${name} usually does ${skill} here.` : `Nobody in particular does ${skill} here.`);
        },
        onError: (problem) => {
          setWrong(wordsOf(problem));
          onStale();
        },
      },
    );
  return (
    <li className="grid sm:grid-cols-[minmax(0,14rem)_minmax(0,18rem)_minmax(0,1fr)] gap-x-4 gap-y-1 items-center py-2 border-t border-line first:border-t-0">
      <p>
        <label htmlFor={`team-${skill}`} className="font-medium break-words">
          {skill}
        </label>
        <span className="block text-muted text-[13px]">{routes === 0 ? 'in no route' : `in ${count(routes, 'route')}`}</span>
      </p>
      <select
        id={`team-${skill}`}
        className="field"
        disabled={put.isPending}
        value={personId ?? ''}
        onChange={({ target }) => choose(target.value || null)}
      >
        <option value="">Nobody in particular</option>
        {personId !== null && !chosen && <option value={personId}>{personName}</option>}
        {able.map((person) => (
          <option key={person.personId} value={person.personId}>
            {person.name}
          </option>
        ))}
      </select>
      <p className="text-[13px] text-muted">
        {cannot && (
          <Tag tone="rhubarb">
            {personName} {CANNOT[cannot]}
          </Tag>
        )}
        {chosen &&
          `${SKILL_LEVELS[chosen.level] ?? ''} · ${chosen.openSteps === 0 ? 'nothing open' : `${count(chosen.openSteps, 'step')} open, ${minutesWords(chosen.openMinutes)}`}`}
        {personId === null && (able.length === 0 ? 'Nobody has this skill.' : `${count(able.length, 'person', 'people')} could.`)}
      </p>
      {wrong && (
        <p role="alert" className="text-rhubarb text-[13px] sm:col-span-3">
          {wrong}
        </p>
      )}
    </li>
  );
}
