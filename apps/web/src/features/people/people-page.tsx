import { useSuspenseQuery } from '@tanstack/react-query';
import type { PersonRow } from '@zesting/contract';
import { Link } from 'react-router';
import { peopleQuery } from '../../api/people';
import { count, dayWords, minutesWords } from '../../lib/format';
import { useSession } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { ROLE_WORDS, SKILL_LEVELS } from '../../lib/words';
import { Button } from '../../ui/button';
import { PageHead } from '../../ui/page';
import { zoneClock } from '../../ui/setup-fields';
import { Tag } from '../../ui/tags';
import { NewPersonDialog } from './new-person-dialog';

/** Everybody at the agency: who is here, what they can do, what they have open. */
export function PeoplePage() {
  const { role } = useSession();
  const { data: rows } = useSuspenseQuery(peopleQuery);
  const { opened, open, close } = useOpened();
  const [here, left] = [rows.filter((row) => row.active), rows.filter((row) => !row.active)];
  return (
    <>
      <PageHead title="People" note={`${count(here.length, 'person', 'people')}, staff and freelance`}>
        {role === 'lead' && (
          <Button look="main" onClick={() => open('new')}>
            Take on a person
          </Button>
        )}
      </PageHead>
      <PeopleTable rows={here} />
      {left.length > 0 && (
        <details className="mt-4">
          <summary className="text-pine font-medium min-h-8">Left ({left.length})</summary>
          <PeopleTable rows={left} />
        </details>
      )}
      {role === 'lead' && opened === 'new' && <NewPersonDialog onClose={close} />}
    </>
  );
}

function PeopleTable({ rows }: { rows: readonly PersonRow[] }) {
  return (
    <div className="card overflow-x-auto">
      <table className="w-full text-left">
        <thead className="text-muted text-[13px]">
          <tr>
            <th className="font-medium px-4 py-2">Person</th>
            <th className="font-medium pr-4">Role</th>
            <th className="font-medium pr-4">Where</th>
            <th className="font-medium pr-4">Skills</th>
            <th className="font-medium pr-4 text-right">Hours a week</th>
            <th className="font-medium pr-4 text-right">Open</th>
            <th className="font-medium pr-4">Here</th>
          </tr>
        </thead>
        <tbody className="tabular">
          {rows.map((row) => (
            <tr key={row.id} className="border-t border-line">
              <td className="px-4 py-1.5">
                <Link to={`/people/${row.id}`} className="inline-flex items-center min-h-8 font-medium no-underline hover:underline">
                  {row.name}
                </Link>
              </td>
              <td className="pr-4 whitespace-nowrap">{ROLE_WORDS[row.role]}</td>
              <td className="pr-4 text-muted whitespace-nowrap">{zoneClock(row.zone)}</td>
              <td className="pr-4">
                <span className="flex flex-wrap gap-1">
                  {Object.entries(row.skills).map(([skill, level]) => (
                    <span
                      key={skill}
                      title={SKILL_LEVELS[level]}
                      className="rounded-md bg-sunk px-1.5 text-[12px] leading-5 whitespace-nowrap"
                    >
                      {skill} <span aria-hidden>{'●'.repeat(level)}</span>
                      <span className="sr-only">, {SKILL_LEVELS[level]}</span>
                    </span>
                  ))}
                </span>
              </td>
              <td className="pr-4 text-right">{minutesWords(row.weeklyMinutes.reduce((sum, minutes) => sum + minutes, 0))}</td>
              <td className="pr-4 text-right whitespace-nowrap">
                {row.openSteps === 0 ? (
                  <span className="text-muted">nothing</span>
                ) : (
                  `${count(row.openSteps, 'step')}, ${minutesWords(row.openMinutes)}`
                )}
              </td>
              <td className="pr-4">
                <PresenceTag row={row} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Whether the person is here: left, invited, away, or here. */
export function PresenceTag({ row }: { row: Pick<PersonRow, 'active' | 'isInvited' | 'awayUntil'> }) {
  if (!row.active) return <Tag tone="rind">Left</Tag>;
  if (row.isInvited) return <Tag>Invited</Tag>;
  return row.awayUntil ? <Tag tone="rind">Away until {dayWords(row.awayUntil)}</Tag> : <Tag tone="pine">Here</Tag>;
}
