import type { InviteShape, OpenedLinkShape } from '@zesting/contract';
import { useState, type FormEvent } from 'react';
import { Link, useParams } from 'react-router';
import { call, wordsOf } from '../lib/api';
import { useAnswer } from '../lib/use-answer';
import { Button } from '../ui/button';
import { EntryCard } from './entry-card';
import { PasswordField, passwordProblem, SHORTEST_PASSWORD } from './password-field';

/** What a link to choose a password is for. */
type Purpose = 'invites' | 'resets';

const WORDS: Record<Purpose, { title: string; hello: (invite: InviteShape) => string; closed: string }> = {
  invites: {
    title: 'Your place',
    hello: ({ agencyName }) => `${agencyName} works with Zesting; choose a password, and you can begin.`,
    closed: 'This invitation was used, or a newer one was sent. Ask the agency for another.',
  },
  resets: {
    title: 'A new password',
    hello: () => 'Choose a new password. You will be signed out wherever you are signed in now.',
    closed: 'This link was used, or its hour has passed.',
  },
};

/** Answering an invitation: choosing a password, once. */
export const InvitePage = () => <ChoosePassword purpose="invites" />;

/** Choosing a password anew, by a link that was asked for. */
export const ResetPage = () => <ChoosePassword purpose="resets" />;

function ChoosePassword({ purpose }: { purpose: Purpose }) {
  const { token = '' } = useParams();
  const { answer } = useAnswer(async () => {
    const { linkId } = await call<OpenedLinkShape>(`/${purpose}/open`, { method: 'POST', body: { token } });
    return { linkId, invite: await call<InviteShape>(`/${purpose}/${linkId}`) };
  });
  return (
    <EntryCard title={WORDS[purpose].title}>
      {answer.state === 'waiting' && <p role="status">One moment…</p>}
      {answer.state === 'failed' && <p role="alert">{WORDS[purpose].closed}</p>}
      {answer.state === 'failed' && purpose === 'resets' && (
        <Link to="/forgotten" className="text-pine underline inline-block mt-3">
          Ask for another
        </Link>
      )}
      {answer.state === 'here' && <PasswordForm purpose={purpose} {...answer.value} />}
    </EntryCard>
  );
}

function PasswordForm({ purpose, linkId, invite }: { purpose: Purpose; linkId: string; invite: InviteShape }) {
  const [password, setPassword] = useState('');
  const [again, setAgain] = useState('');
  const [error, setError] = useState<string>();
  const [state, setState] = useState<'typing' | 'busy' | 'done'>('typing');
  if (state === 'done')
    return (
      <>
        <p className="mb-3">Your password is set.</p>
        <Link to="/" reloadDocument className="text-pine underline">
          Sign in as {invite.email}
        </Link>
      </>
    );
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const problem = passwordProblem(password, again);
    if (problem) return setError(problem);
    setState('busy');
    setError(undefined);
    try {
      await call(`/${purpose}/${linkId}/password`, { method: 'POST', body: { password } });
      setState('done');
    } catch (problem) {
      setError(wordsOf(problem));
      setState('typing');
    }
  };
  return (
    <form noValidate onSubmit={(event) => void submit(event)}>
      <p className="mb-4">
        Hello {invite.name}. {WORDS[purpose].hello(invite)}
      </p>
      <input type="email" className="sr-only" tabIndex={-1} aria-hidden autoComplete="username" value={invite.email} readOnly />
      <PasswordField
        label="New password"
        help={`At least ${SHORTEST_PASSWORD} characters, nothing that is guessed first`}
        value={password}
        onChange={setPassword}
      />
      <PasswordField label="The same again" error={error} value={again} onChange={setAgain} />
      <Button look="main" type="submit" className="w-full" disabled={state === 'busy'}>
        Set the password
      </Button>
    </form>
  );
}
