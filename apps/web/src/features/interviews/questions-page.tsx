import { useInfiniteQuery } from '@tanstack/react-query';
import type { InterviewShape } from '@zesting/contract';
import { Plus } from 'lucide-react';
import { Link } from 'react-router';
import { interviewsQuery } from '../../api/interviews';
import { wordsOf } from '../../lib/api';
import { useClients } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { useSearch } from '../../lib/use-search';
import { AskDialog } from '../../parts/ask-dialog';
import { InterviewState } from '../../parts/asked-about';
import { PlanNav } from '../../parts/plan-nav';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { ClientCode } from '../../ui/tags';
import { InterviewDialog } from './interview-dialog';
import { QuestionSets } from './question-sets';

/** What contacts and experts were asked, and the questions that are kept to be asked again. */
export function QuestionsPage() {
  const { query, clients, client } = useClients();
  const { search, put } = useSearch();
  const { opened, open, close } = useOpened();
  const asked = search.get('asked') === 'closed' ? 'closed' : 'open';
  const list = useInfiniteQuery(interviewsQuery(query, asked));
  if (list.isError) return <Failed message={wordsOf(list.error)} onRetry={() => void list.refetch()} />;
  if (!list.data) return <Loading />;
  const interviews = list.data.pages.flatMap((page) => page.interviews);
  const counts = list.data.pages[0]?.counts ?? { open: 0, closed: 0 };
  const shown = search.get('interview');
  const forId = client?.id ?? clients[0]?.id;
  return (
    <>
      <PageHead nav={<PlanNav />} title="Questions" note="What contacts and experts know, for ideas and briefs.">
        {forId && (
          <Button look="main" onClick={() => open('ask')}>
            <Plus size={15} aria-hidden />
            Ask who knows
          </Button>
        )}
      </PageHead>
      <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_22rem] items-start">
        <div className="min-w-0 grid gap-3">
          <div>
            <Choice
              label="Which questions"
              value={asked}
              options={[
                ['open', `Open ${counts.open || ''}`.trim()],
                ['closed', `Closed ${counts.closed || ''}`.trim()],
              ]}
              onChange={(next) => put({ asked: next === 'open' ? null : next })}
            />
          </div>
          {interviews.length === 0 ? (
            <Empty title={asked === 'open' ? 'Nobody is asked anything' : 'No questions were closed yet'}>
              {asked === 'open' &&
                'The best of an idea is often in somebody’s head. Put a few questions to a contact, who answers in the room, or write down what an expert tells you.'}
            </Empty>
          ) : (
            <ul className="card overflow-hidden" aria-label="Questions">
              {interviews.map((interview) => (
                <InterviewLine key={interview.id} interview={interview} onOpen={() => put({ interview: interview.id })} />
              ))}
            </ul>
          )}
          {list.hasNextPage && (
            <Button className="justify-self-start" disabled={list.isFetchingNextPage} onClick={() => void list.fetchNextPage()}>
              Show more
            </Button>
          )}
        </div>
        <QuestionSets opened={opened} onOpen={open} onClose={close} />
      </div>
      {opened === 'ask' && forId && <AskDialog clientId={forId} onClose={close} />}
      {shown && <InterviewDialog key={shown} interviewId={shown} onClose={() => put({ interview: null }, { replace: true })} />}
    </>
  );
}

function InterviewLine({ interview, onOpen }: { interview: InterviewShape; onOpen: () => void }) {
  const { clientOf, client: chosen, to } = useClients();
  const client = clientOf(interview.clientId);
  const { about } = interview;
  return (
    <li className="border-t border-line first:border-t-0 px-4 py-2 flex flex-wrap items-baseline gap-x-3 gap-y-0.5 hover:bg-sunk">
      {!chosen && client && (
        <span className="w-16 shrink-0">
          <ClientCode code={client.code} colour={client.colour} />
        </span>
      )}
      <button type="button" className="font-medium text-left hover:underline min-h-6 min-w-0 break-words" onClick={onOpen}>
        {interview.title}
      </button>
      <InterviewState interview={interview} />
      {about && about.title !== interview.title && (
        <Link
          to={to(about.kind === 'piece' ? `/pieces/${about.id}` : `/plan/ideas?idea=${about.id}`)}
          className="text-muted text-[13px] underline ml-auto truncate max-w-64"
        >
          for “{about.title}”
        </Link>
      )}
    </li>
  );
}
