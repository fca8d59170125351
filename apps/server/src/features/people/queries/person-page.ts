import { addDays, dayIn } from '@zesting/core';
import type { CoverShape, PersonClientShape, PersonPageShape, PersonRow, PersonStepShape, TimeOffShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { publicHolidays } from '../../../platform/time/holidays.js';

const ROW = `p.id, p.name, p.email, p.role, p.zone, p.region, p.weekly_minutes as "weeklyMinutes", p.skills, p.active, p.password_hash is null as "isInvited",
  coalesce(w.steps, 0) as "openSteps", coalesce(w.minutes, 0) as "openMinutes",
  (select max(t.end_on) from time_off t where t.person_id = p.id and t.part = 1
    and ($1::timestamptz at time zone p.zone)::date between t.start_on and t.end_on) as "awayUntil"`;

/** What is open of everybody, or of one: reckoned in one go over what is open, never person by person. */
const openWork = (where: string): string =>
  `(select s.doer_id, count(*) as steps, sum(coalesce(s.remaining_minutes, s.effort_minutes)) as minutes
    from steps s join pieces i on i.id = s.piece_id where s.finished_on is null and not i.shelved and ${where} group by s.doer_id) w on w.doer_id = p.id`;

/** Everybody at the agency: those here by role and name, those who left after them. */
export const personRows = (app: App): Promise<PersonRow[]> =>
  app.read<PersonRow>(
    `select ${ROW} from people p left join ${openWork('s.doer_id is not null')} order by (not p.active), array_position(array['lead', 'manager', 'staff', 'freelance'], p.role), p.name`,
    [app.clock.now()],
  );

/** One person's page. Steps and clients are those that the viewer may see; the rest is only counted. */
export async function personPage(app: App, viewer: Viewer, personId: string): Promise<PersonPageShape> {
  const now = app.clock.now();
  const [row] = await app.read<
    PersonRow & { leftAt: string | null; version: number; mayEditForms: boolean; roundUp: PersonPageShape['roundUp'] }
  >(
    `select ${ROW}, p.left_at as "leftAt", p.version, p.may_edit_forms as "mayEditForms", jsonb_build_object('rhythm', p.round_up, 'at', to_char(p.round_up_at, 'HH24:MI')) as "roundUp"
     from people p left join ${openWork('s.doer_id = $2')} where p.id = $2`,
    [now, personId],
  );
  if (!row) throw new Error('the person went away');
  const todayOn = dayIn(now, row.zone);
  const until = addDays(todayOn, 365);
  const steps = await app.read<PersonStepShape>(
    `select s.id as "stepId", s.title, s.skill, p.id as "pieceId", p.title as "pieceTitle", p.client_id as "clientId",
       s.latest_finish_on as "latestFinishOn", s.effort_minutes as "effortMinutes"
     from steps s join pieces p on p.id = s.piece_id where s.doer_id = $1 and s.finished_on is null and not p.shelved and p.client_id = any($2)
     order by s.latest_finish_on nulls last, p.number, s.position`,
    [personId, viewer.clientIds],
  );
  const timeOff = await app.read<TimeOffShape>(
    `select id, start_on as "startOn", end_on as "endOn", part, note, source_uid is not null as "isImported" from time_off
     where person_id = $1 and end_on >= $2::date - 31 order by start_on, end_on`,
    [personId, todayOn],
  );
  const clients = await app.read<PersonClientShape>(
    `select o.client_id as "clientId", c.code, c.name, c.colour, o.relation from client_people o join clients c on c.id = o.client_id
     where o.person_id = $1 and o.client_id = any($2) order by c.name`,
    [personId, viewer.clientIds],
  );
  const covers = await app.read<CoverShape>(
    `select v.id, v.manager_id as "managerId", m.name as "managerName", v.cover_id as "coverId", u.name as "coverName", v.start_on as "startOn",
       v.end_on as "endOn" from covers v join people m on m.id = v.manager_id join people u on u.id = v.cover_id
     where (v.manager_id = $1 or v.cover_id = $1) and v.end_on >= $2 order by v.start_on`,
    [personId, todayOn],
  );
  const isSelf = viewer.personId === personId;
  return {
    ...row,
    todayOn,
    timeOff,
    clients,
    covers,
    steps,
    hiddenSteps: row.openSteps - steps.length,
    holidays: publicHolidays(row.region, Number(todayOn.slice(0, 4)), Number(until.slice(0, 4))).filter(
      (holiday) => holiday.on >= todayOn && holiday.on <= until,
    ),
    canEdit: viewer.role === 'lead',
    isSelf,
  };
}
