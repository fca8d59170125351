import { isClientsStep } from '../../planning/index.js';
import { dayIn } from '@zesting/core';
import type { MyStepRow, MyStepsShape, StepWithRow } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { holdsFor } from '../../guidelines/index.js';

/** The viewer's open steps in the order to do them: what is at hand first, by latest finish; then what waits for others. */
export async function myStepsOf(app: App, viewer: Viewer): Promise<MyStepsShape> {
  const rows = await app.read<MyStepRow>(
    `select s.id as "stepId", p.id as "pieceId", p.number as "pieceNumber", p.title as "pieceTitle", c.id as "clientId", c.code as "clientCode",
       c.name as "clientName", c.colour as "clientColour", s.title as "stepTitle", s.kind, s.round, s.started_on as "startedOn",
       s.latest_start_on as "latestStartOn", s.latest_finish_on as "latestFinishOn", s.slack_days as "slackDays", s.danger,
       coalesce(s.remaining_minutes, s.effort_minutes) as "leftMinutes", s.predicted_finish_on as "predictedFinishOn", w.title is null as "atHand", w.title as "waitsFor",
       (select n.title || ' (' || coalesce(case when ${isClientsStep('n')} then 'the client' else d.name end, 'nobody yet') || ')'
        from steps n left join people d on d.id = n.doer_id where n.piece_id = s.piece_id and s.id = any(n.predecessor_ids) order by n.position limit 1) as "thenGoesTo",
       s.remark, p.progress as wheel,
       (select string_agg(o.words, '; ' order by o.raised_at) from obstacles o where o.piece_id = s.piece_id and o.settled_at is null and (o.step_id is null or o.step_id = s.id)) as "inTheWay",
       (select count(*) from guidelines g where ${holdsFor('s.skill')}) as guidelines,
       (select count(*) from remarks m where m.piece_id = s.piece_id and m.state = 'open' and m.removed_at is null) as "openRemarks",
       s.accepted_on is null and s.started_on is null and (select d.role = 'freelance' from people d where d.id = $1) as "isOffered",
       (select coalesce(sum(k.minutes), 0) from worked k where k.step_id = s.id and k.person_id = $1 and k.removed_at is null) as "workedMinutes",
       (select k.started_at from worked k where k.step_id = s.id and k.person_id = $1 and k.minutes is null and k.removed_at is null) as "clockStartedAt"
     from steps s join pieces p on p.id = s.piece_id join clients c on c.id = p.client_id
     left join lateral (select b.title from steps b where b.piece_id = s.piece_id and b.id = any(s.predecessor_ids) and b.finished_on is null order by b.position limit 1) w on true
     where s.doer_id = $1 and s.finished_on is null and not p.shelved
     order by (w.title is not null), s.latest_finish_on nulls last, p.number, s.position`,
    [viewer.personId],
  );
  const together = await app.read<StepWithRow>(
    `select s.id as "stepId", p.id as "pieceId", p.title as "pieceTitle", c.code as "clientCode", c.name as "clientName", c.colour as "clientColour", s.title as "stepTitle",
       d.name as "doerName", s.started_on as "startedOn", s.predicted_start_on as "predictedStartOn", s.latest_finish_on as "latestFinishOn",
       not exists (select 1 from steps b where b.piece_id = s.piece_id and b.id = any(s.predecessor_ids) and b.finished_on is null) as "atHand"
     from steps s join pieces p on p.id = s.piece_id join clients c on c.id = p.client_id join people d on d.id = s.doer_id
     where s.with_id = $1 and s.finished_on is null and not p.shelved
     order by coalesce(s.started_on, s.predicted_start_on, s.latest_start_on) nulls last, p.number, s.position`,
    [viewer.personId],
  );
  return { todayOn: dayIn(app.clock.now(), viewer.zone), rows, together };
}
