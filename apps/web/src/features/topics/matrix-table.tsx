import type { ClientShape, TopicsShape, TopicUseShape } from '@zesting/contract';
import { CalendarPlus, Lightbulb, MoreHorizontal, Plus } from 'lucide-react';
import { Fragment } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { monthWords } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Menu, MenuItem } from '../../ui/menu';
import { PutAway } from '../../ui/put-away';
import { columnsOf, type MatrixRow } from './matrix';

interface MatrixTableProps {
  readonly client: ClientShape;
  readonly all: TopicsShape;
  readonly rows: readonly MatrixRow[];
  /** opens a dialog of the page, by its name and what it is for */
  readonly onOpen: (name: string) => void;
}

/** A month in few letters: "Mar 27". */
const shortMonth = (month: string): string => `${monthWords(month).slice(0, 3)} ${month.slice(2, 4)}`;

/** Subjects as rows under their pillars, treatments as columns; in each cell what was made of it, or the way to catch an idea. */
export function MatrixTable({ client, all, rows, onOpen }: MatrixTableProps) {
  const columns = columnsOf(all);
  const restore = useWrite((id: string) => call(`/topics/${id}/restore`, { method: 'POST' }));
  return (
    <div className="overflow-x-auto card">
      <table className="w-full border-separate border-spacing-0 text-[13px]">
        <caption className="sr-only">What {client.name} talks about, and what was made of it</caption>
        <thead>
          <tr className="text-left text-muted">
            <th scope="col" className="font-medium px-3 py-1.5 min-w-56">
              Subject
            </th>
            {columns.map((column) => (
              <th key={column} scope="col" className="font-medium px-2 py-1.5 min-w-28">
                {column || 'Made of it'}
              </th>
            ))}
            <th scope="col" className="font-medium px-2 py-1.5 w-44">
              Months
            </th>
            <th scope="col" className="w-12">
              <span className="sr-only">What can be done</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {client.pillars.map((pillar) => (
            <Fragment key={pillar.id}>
              <tr className="bg-sunk">
                <th
                  scope="rowgroup"
                  colSpan={columns.length + 2}
                  className="text-left px-3 py-1 border-t border-line font-semibold text-[14px]"
                >
                  {pillar.name}
                </th>
                <td className="border-t border-line px-1 text-right">
                  <Button look="quiet" aria-label={`Add topics to ${pillar.name}`} onClick={() => onOpen(`new:${pillar.id}`)}>
                    <Plus size={15} aria-hidden />
                  </Button>
                </td>
              </tr>
              {rows
                .filter(({ topic }) => topic.pillarId === pillar.id)
                .map((row) => (
                  <SubjectRow key={row.topic.id} row={row} columns={columns} onOpen={onOpen} />
                ))}
              {!all.topics.some(({ pillarId }) => pillarId === pillar.id) && (
                <tr>
                  <td colSpan={columns.length + 3} className="px-3 py-1.5 text-muted">
                    No topics yet.{' '}
                    <button type="button" className="text-pine underline min-h-6" onClick={() => onOpen(`new:${pillar.id}`)}>
                      Name some of {pillar.name}
                    </button>
                  </td>
                </tr>
              )}
            </Fragment>
          ))}
        </tbody>
      </table>
      {all.archived.length > 0 && (
        <div className="px-3 py-2 border-t border-line">
          <PutAway items={all.archived} title="Archived earlier" action="take back" onBack={(id) => restore.mutate(id)} />
        </div>
      )}
    </div>
  );
}

function SubjectRow({ row, columns, onOpen }: { row: MatrixRow; columns: readonly string[]; onOpen: (name: string) => void }) {
  const { topic, isLeaf, cells, beside } = row;
  const archive = useWrite(() => call(`/topics/${topic.id}`, { method: 'DELETE' }));
  const restore = useWrite(() => call(`/topics/${topic.id}/restore`, { method: 'POST' }));
  const isTop = topic.parentId === null;
  return (
    <tr className="hover:bg-sunk">
      <th scope="row" className={`text-left border-t border-line px-3 py-1 align-top ${isTop ? 'font-medium' : 'font-normal pl-8'}`}>
        <span className="break-words">{topic.name}</span>
        {row.isUnused && <span className="text-muted font-normal"> · unused</span>}
        {beside.length > 0 && (
          <span className="flex flex-wrap gap-x-2 font-normal">
            {beside.map((use) => (
              <Use key={use.id} use={use} />
            ))}
          </span>
        )}
      </th>
      {columns.map((column) => (
        <td key={column} className="border-t border-line px-2 py-0.5 align-top">
          <span className="flex flex-wrap gap-x-2">
            {cells.get(column)?.map((use) => (
              <Use key={use.id} use={use} />
            ))}
            {isLeaf && cells.get(column)?.length === 0 && <Free topicId={topic.id} name={topic.name} treatment={column} />}
          </span>
        </td>
      ))}
      <td className="border-t border-line px-2 py-0.5 align-top">
        <button
          type="button"
          className="min-h-6 min-w-6 inline-flex items-center tabular hover:underline"
          title="Put into months"
          aria-label={
            topic.months.length > 0
              ? `${topic.months.map(shortMonth).join(', ')}: months of ${topic.name}`
              : `Put ${topic.name} into months`
          }
          onClick={() => onOpen(`months:${topic.id}`)}
        >
          {topic.months.length > 0 ? (
            topic.months.map(shortMonth).join(', ')
          ) : (
            <CalendarPlus size={14} className="text-muted" aria-hidden />
          )}
        </button>
      </td>
      <td className="border-t border-line px-1 text-right align-top">
        <Menu
          label={`What can be done with ${topic.name}`}
          className="inline-flex items-center justify-center size-7 rounded-md hover:bg-card"
          trigger={<MoreHorizontal size={16} aria-hidden />}
        >
          {isTop && <MenuItem onSelect={() => onOpen(`new:${topic.id}`)}>Add subtopics</MenuItem>}
          <MenuItem onSelect={() => onOpen(`rename:${topic.id}`)}>Rename</MenuItem>
          <MenuItem
            onSelect={() =>
              archive.mutate(undefined, {
                onSuccess: () =>
                  toast(`“${topic.name}” is archived${isLeaf || !isTop ? '' : ' with its subtopics'}.`, {
                    action: { label: 'Take it back', onClick: () => restore.mutate() },
                  }),
              })
            }
          >
            Archive
          </MenuItem>
        </Menu>
      </td>
    </tr>
  );
}

/** A piece leads to its page, an idea to the shelf. */
function Use({ use }: { use: TopicUseShape }) {
  const { to } = useClients();
  return (
    <Link
      to={to(use.kind === 'piece' ? `/pieces/${use.id}` : `/plan/ideas?idea=${use.id}`)}
      className="min-h-6 inline-flex items-center gap-1 no-underline hover:underline tabular"
      title={use.title}
    >
      {use.kind === 'idea' ? (
        <>
          <Lightbulb size={13} className="text-rind" aria-hidden />
          idea
        </>
      ) : use.month === null ? (
        'no date'
      ) : (
        <span className="text-pine font-medium">{shortMonth(use.month)}</span>
      )}
      <span className="sr-only">: {use.title}</span>
    </Link>
  );
}

function Free({ topicId, name, treatment }: { topicId: string; name: string; treatment: string }) {
  const catchIdea = useWrite(() => call(`/topics/${topicId}/idea`, { method: 'POST', body: { treatment: treatment || null } }));
  const words = treatment ? `${name}: ${treatment}` : name;
  return (
    <button
      type="button"
      className="size-6 -ml-1.5 inline-flex items-center justify-center rounded-md text-muted hover:bg-card hover:text-ink"
      aria-label={`Catch an idea: ${words}`}
      title="Catch an idea"
      disabled={catchIdea.isPending}
      onClick={() => catchIdea.mutate(undefined, { onSuccess: () => toast(`On the idea shelf: ${words}`) })}
    >
      <Plus size={14} aria-hidden />
    </button>
  );
}
