import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { ToMakeCell } from '@zesting/contract';
import { Link } from 'react-router';
import { toMakeQuery } from '../../../api/production';
import { wordsOf } from '../../../lib/api';
import { count, minutesWords } from '../../../lib/format';
import { useClients, useSession } from '../../../lib/queries';
import { SavedViews } from '../../../parts/saved-views';
import { Empty, Failed, Loading, PageHead } from '../../../ui/page';
import { PieceFilterRow, usePieceFilter } from '../piece-filter';
import { ProductionNav } from '../../../parts/production-nav';
import { sittingAddress } from './sitting-address';

/** How much of each kind there is to make, so that what is alike can be made in one sitting. */
export function MakePage() {
  const { query } = useClients();
  const { role } = useSession();
  const manages = role === 'lead' || role === 'manager';
  const filter = usePieceFilter();
  const made = useQuery({ ...toMakeQuery(query, filter.query), placeholderData: keepPreviousData });
  if (made.isError) return <Failed message={wordsOf(made.error)} onRetry={() => void made.refetch()} />;
  if (!made.data) return <Loading />;
  const { cells } = made.data;
  const steps = cells.reduce((sum, cell) => sum + cell.steps, 0);
  const minutes = cells.reduce((sum, cell) => sum + cell.minutes, 0);
  return (
    <>
      <PageHead
        nav={manages && <ProductionNav />}
        title="To make"
        note={steps > 0 ? `${count(steps, 'step')}, ${minutesWords(minutes)} of work` : undefined}
      >
        {manages && <SavedViews page="production" />}
      </PageHead>
      {manages && <PieceFilterRow filter={filter} leftOut={null} />}
      {cells.length === 0 ? (
        <Empty title={filter.isNarrowed ? 'Nothing like that is to be made' : 'Nothing is to be made'}>
          Steps of pieces stand here as long as somebody has them to do.
        </Empty>
      ) : (
        <Counts cells={cells} />
      )}
    </>
  );
}

/** What an order of cells adds up to. */
const sumOf = (cells: readonly ToMakeCell[]) => ({
  steps: cells.reduce((sum, { steps }) => sum + steps, 0),
  atHand: cells.reduce((sum, { atHand }) => sum + atHand, 0),
  minutes: cells.reduce((sum, { minutes }) => sum + minutes, 0),
});

/** Formats by what must be done for them; each number leads to the steps behind it, one after another. */
function Counts({ cells }: { cells: readonly ToMakeCell[] }) {
  const placeOf = (skill: string) => {
    const of = cells.filter((cell) => cell.skill === skill);
    return of.reduce((sum, { place, steps }) => sum + place * steps, 0) / sumOf(of).steps;
  };
  const skills = [...new Set(cells.map(({ skill }) => skill))].sort((a, b) => placeOf(a) - placeOf(b) || a.localeCompare(b));
  const formats = [...new Map(cells.map(({ formatId, formatName }) => [formatId, formatName])).entries()];
  return (
    <div className="card overflow-x-auto">
      <table className="w-full text-[13px] border-collapse" aria-label="What there is to make">
        <thead>
          <tr className="text-left">
            <th className="p-3 font-normal text-muted">Format</th>
            {skills.map((skill) => (
              <th key={skill} className="p-3 font-semibold">
                {skill}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {formats.map(([formatId, name]) => (
            <tr key={formatId} className="border-t border-line">
              <th scope="row" className="p-3 text-left font-medium">
                {name}
              </th>
              {skills.map((skill) => {
                const cell = cells.find((one) => one.formatId === formatId && one.skill === skill);
                return <Count key={skill} skill={skill} formatId={formatId} what={`${skill}, ${name}`} of={cell} />;
              })}
            </tr>
          ))}
          {formats.length > 1 && (
            <tr className="border-t border-line-strong">
              <th scope="row" className="p-3 text-left font-medium">
                All formats
              </th>
              {skills.map((skill) => (
                <Count
                  key={skill}
                  skill={skill}
                  formatId={null}
                  what={`${skill}, all formats`}
                  of={sumOf(cells.filter((cell) => cell.skill === skill))}
                />
              ))}
            </tr>
          )}
        </tbody>
      </table>
    </div>
  );
}

interface CountProps {
  readonly skill: string;
  readonly formatId: string | null;
  readonly what: string;
  readonly of: Pick<ToMakeCell, 'steps' | 'atHand' | 'minutes'> | undefined;
}

function Count({ skill, formatId, what, of }: CountProps) {
  if (!of) return <td className="p-3 text-muted">–</td>;
  return (
    <td className="p-1.5">
      <Link to={sittingAddress(skill, formatId)} className="block px-1.5 py-1 rounded-md no-underline hover:bg-sunk">
        <span className="text-lg font-semibold tabular">{of.steps}</span>
        <span className="sr-only">
          {' '}
          {of.steps === 1 ? 'step' : 'steps'}: {what},
        </span>{' '}
        <span className={of.atHand > 0 ? 'text-pine font-medium' : 'text-muted'}>
          {of.atHand === 0 ? 'none yet' : of.atHand === of.steps ? (of.steps === 1 ? 'now' : 'all now') : `${of.atHand} now`}
        </span>
        <span className="block text-muted tabular">{minutesWords(of.minutes)}</span>
      </Link>
    </td>
  );
}
