import { useQuery } from '@tanstack/react-query';
import { EditInterviewBody, type InterviewShape } from '@zesting/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { interviewQuery } from '../../api/interviews';
import { call, wordsOf } from '../../lib/api';
import { instantWords } from '../../lib/format';
import { useClients, useDaysOff, useSession, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { InterviewState } from '../../parts/asked-about';
import { InterviewAnswers } from '../../parts/interview-answers';
import { Button } from '../../ui/button';
import { DayField } from '../../ui/day-field';
import { Dialog } from '../../ui/dialog';
import { FormDialog } from '../../ui/form-dialog';
import { Failed, Loading } from '../../ui/page';
import { LinesField, TextField } from '../../ui/text-field';

/** One interview: its questions with their answers, to be written down, added to, and closed. */
export function InterviewDialog({ interviewId, onClose }: { interviewId: string; onClose: () => void }) {
  const found = useQuery({ ...interviewQuery(interviewId), retry: false });
  const [isEdited, setEdited] = useState(false);
  if (found.data && isEdited) return <EditDialog interview={found.data} onClose={() => setEdited(false)} />;
  return (
    <Dialog open onClose={onClose} title={found.data?.title ?? 'Questions'} wide>
      {found.data && <Shown interview={found.data} onEdit={() => setEdited(true)} />}
      {!found.data && (found.isError ? <Failed message={wordsOf(found.error)} onRetry={() => void found.refetch()} /> : <Loading />)}
    </Dialog>
  );
}

function Shown({ interview, onEdit }: { interview: InterviewShape; onEdit: () => void }) {
  const { to } = useClients();
  const put = useWrite((state: 'open' | 'closed') => call(`/interviews/${interview.id}/state`, { method: 'POST', body: { state } }));
  const { about, closedAt } = interview;
  return (
    <>
      <p className="mb-2">
        <InterviewState interview={interview} />
        <span className="text-muted text-[13px]">
          {' · '}asked by {interview.askedBy}, {instantWords(interview.askedAt)}
        </span>
        {about && (
          <>
            {' · '}
            <Link
              to={to(about.kind === 'piece' ? `/pieces/${about.id}` : `/plan/ideas?idea=${about.id}`)}
              className="text-pine underline text-[13px]"
            >
              for “{about.title}”
            </Link>
          </>
        )}
      </p>
      <InterviewAnswers interview={interview} canWrite />
      <div className="flex flex-wrap justify-end gap-2 mt-2">
        <Button className="mr-auto" onClick={onEdit}>
          Ask more, or by another day
        </Button>
        <Button disabled={put.isPending} onClick={() => put.mutate(closedAt === null ? 'closed' : 'open')}>
          {closedAt === null ? 'Close the questions' : 'Open them again'}
        </Button>
      </div>
    </>
  );
}

function EditDialog({ interview, onClose }: { interview: InterviewShape; onClose: () => void }) {
  const { todayOn } = useSession();
  const off = useDaysOff({ clientId: interview.clientId });
  const save = useWrite(
    (body: EditInterviewBody) => call(`/interviews/${interview.id}`, { method: 'PATCH', body, version: interview.version }),
    { quiet: true },
  );
  const form = useBodyForm<EditInterviewBody>(
    EditInterviewBody,
    { title: interview.title, dueOn: interview.dueOn, questions: [] },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        onClose();
      },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={interview.title}
      {...(interview.contactId ? { description: `More questions go to ${interview.answerer} by mail.` } : {})}
      action="Keep"
    >
      <TextField
        label="What it is about"
        required
        error={errorOf('title')}
        maxLength={150}
        value={body.title ?? ''}
        onChange={(title) => change({ title })}
      />
      <DayField
        label="By"
        value={body.dueOn ?? ''}
        todayOn={todayOn}
        off={off}
        error={errorOf('dueOn')}
        onChange={(on) => change({ dueOn: on || null })}
      />
      <LinesField
        label="More questions, one on each line"
        error={errorOf('questions')}
        rows={4}
        lines={[]}
        onChange={(questions) => change({ questions })}
      />
    </FormDialog>
  );
}
