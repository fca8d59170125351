import { useQuery } from '@tanstack/react-query';
import { monthCostQuery } from '../../api/plan';
import { count, dayWords } from '../../lib/format';

const hours = (minutes: number): string => `${Math.round(minutes / 60)} h`;

/** What the open slots of a month ask to be made, by format and by skill, against the hours that are free for it. */
export function MonthCost({ clientId, month }: { clientId: string; month: string }) {
  const { data } = useQuery(monthCostQuery(clientId, month));
  if (!data || (data.formats.length === 0 && data.ofAny === 0)) return null;
  const formats = [
    ...data.formats.map(({ name, count: many }) => `${many} ${name.toLowerCase()}`),
    ...(data.ofAny > 0 ? [`${data.ofAny} of any format`] : []),
  ];
  return (
    <section aria-label="What the open slots ask for" className="card p-3">
      <h2 className="text-base mb-1">Still to be made</h2>
      <p className="text-[13px]">{formats.join(', ')}.</p>
      {data.skills.length > 0 && (
        <table className="w-full text-[13px] mt-1.5">
          <thead>
            <tr className="text-muted text-left">
              <th scope="col" className="font-normal">
                Skill
              </th>
              <th scope="col" className="font-normal text-right">
                asks for
              </th>
              <th scope="col" className="font-normal text-right">
                free
              </th>
            </tr>
          </thead>
          <tbody>
            {data.skills.map(({ skill, minutes, freeMinutes }) => (
              <tr key={skill} className={minutes > freeMinutes ? 'text-rhubarb font-medium' : ''}>
                <th scope="row" className="text-left font-normal">
                  {skill}
                  {minutes > freeMinutes && <span className="sr-only">, more than there is</span>}
                </th>
                <td className="text-right tabular">{hours(minutes)}</td>
                <td className="text-right tabular">{hours(freeMinutes)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {data.untilOn && (
        <p className="text-muted text-[12px] mt-1">
          Free: what {count(data.skills.length, 'skill')} {data.skills.length === 1 ? 'has' : 'have'} left until {dayWords(data.untilOn)},
          after all that is taken on, for every client.
        </p>
      )}
    </section>
  );
}
