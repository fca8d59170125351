import { useQuery } from '@tanstack/react-query';
import type { SpreadOutlookShape, SpreadShape } from '@zesting/contract';
import { useState } from 'react';
import { outlookQuery } from '../../../api/spin-offs';
import { wordsOf } from '../../../lib/api';
import { dayWords, minutesWords } from '../../../lib/format';
import { useDaysOff, useSession } from '../../../lib/queries';
import { StandingTag } from '../../../parts/standing-tag';
import { DayField } from '../../../ui/day-field';
import { Dialog } from '../../../ui/dialog';
import { Failed, Loading } from '../../../ui/page';

/** What a spread would come to for one source, before it is put to use: dates, and the hours of each skill. */
export function OutlookDialog({ spread, onClose }: { spread: SpreadShape; onClose: () => void }) {
  const [on, setOn] = useState('');
  const found = useQuery(outlookQuery(spread.id, on));
  const { todayOn } = useSession();
  const off = useDaysOff({ clientId: spread.clientId, placing: true });
  return (
    <Dialog open wide onClose={onClose} title={`What “${spread.name}” comes to`} description="For one source. Nothing is made by looking.">
      <div className="max-w-xs">
        <DayField
          label="Its source is published"
          todayOn={todayOn}
          min={todayOn}
          off={off}
          value={on || (found.data?.on ?? '')}
          onChange={setOn}
        />
      </div>
      {found.isError && <Failed message={wordsOf(found.error)} onRetry={() => void found.refetch()} />}
      {found.isPending && <Loading />}
      {found.data && (
        <>
          <Outputs outlook={found.data} />
          <Roles outlook={found.data} />
        </>
      )}
    </Dialog>
  );
}

function Outputs({ outlook }: { outlook: SpreadOutlookShape }) {
  return (
    <div className="overflow-x-auto mb-4">
      <table className="w-full text-[13px] tabular">
        <thead>
          <tr className="text-left text-muted">
            <th className="py-1 pr-3 font-normal">Output</th>
            <th className="py-1 pr-3 font-normal">Published</th>
            <th className="py-1 pr-3 font-normal">Work begins by</th>
            <th className="py-1 pr-3 font-normal">Could be out</th>
            <th className="py-1 font-normal">
              <span className="sr-only">Whether it is in time</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {outlook.outputs.map((output) => (
            <tr key={output.lineKey} className="border-t border-line align-top">
              <td className="py-1.5 pr-3">
                <span className="font-medium break-words">{output.name || 'As its source'}</span>
                <span className="block text-muted">{[output.channelName, output.formatName].filter(Boolean).join(' · ')}</span>
              </td>
              <td className="py-1.5 pr-3">{output.on ? `${dayWords(output.on)}${output.at ? `, ${output.at}` : ''}` : ''}</td>
              <td className="py-1.5 pr-3">{output.beginBy ? dayWords(output.beginBy) : ''}</td>
              <td className="py-1.5 pr-3">{dayWords(output.predictedOn)}</td>
              <td className="py-1.5">
                <StandingTag standing={output.standing} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Hours of each skill for one source, and over a week at the rate at which such sources came lately. */
function Roles({ outlook: { roles, perWeek } }: { outlook: SpreadOutlookShape }) {
  return (
    <>
      <h3 className="text-base">Hours, by what has to be done</h3>
      <p className="text-muted text-[13px] mb-1">
        {perWeek > 0
          ? `Over the last twelve weeks ${perWeek.toLocaleString('en-GB', { maximumFractionDigits: 1 })} such sources came a week.`
          : 'No such source came over the last twelve weeks.'}
      </p>
      <div className="overflow-x-auto">
        <table className="w-full text-[13px] tabular">
          <thead>
            <tr className="text-left text-muted">
              <th className="py-1 pr-3 font-normal">Skill</th>
              <th className="py-1 pr-3 font-normal text-right">For one source</th>
              <th className="py-1 pr-3 font-normal text-right">A week</th>
              <th className="py-1 pr-3 font-normal">Begins by, ends by</th>
              <th className="py-1 pr-3 font-normal text-right">Free until then</th>
              <th className="py-1 font-normal">Who can</th>
            </tr>
          </thead>
          <tbody>
            {roles.map(({ skill, minutes, beginBy, finishBy, people, freeMinutes }) => (
              <tr key={skill} className="border-t border-line align-top">
                <td className="py-1.5 pr-3 font-medium break-words">{skill}</td>
                <td className="py-1.5 pr-3 text-right whitespace-nowrap">{minutesWords(minutes)}</td>
                <td className="py-1.5 pr-3 text-right whitespace-nowrap">
                  {perWeek > 0 ? minutesWords(Math.round(minutes * perWeek)) : '–'}
                </td>
                <td className="py-1.5 pr-3">{beginBy && finishBy ? `${dayWords(beginBy)} – ${dayWords(finishBy)}` : '–'}</td>
                <td
                  className={`py-1.5 pr-3 text-right whitespace-nowrap ${people.length > 0 && freeMinutes < minutes ? 'text-rhubarb font-medium' : ''}`}
                >
                  {people.length === 0 ? '–' : minutesWords(freeMinutes)}
                </td>
                <td className={`py-1.5 break-words ${people.length === 0 ? 'text-rhubarb font-medium' : ''}`}>
                  {people.length === 0 ? 'Nobody' : people.join(', ')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
