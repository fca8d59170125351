import type { InviteShape, OpenedLinkShape } from '@zesting/contract';
import { useState, type FormEvent } from 'react';
import { Link, useParams } from 'react-router';
import { call, wordsOf } from '../lib/api';
import { useAnswer } from '../lib/use-answer';
import { Button } from '../ui/button';
import { Field } from '../ui/field';
import { Mark } from './mark';

const SHORTEST = 10;

/** Answering an invitation: choosing a password, once. */
export function InvitePage() {
  const { token = '' } = useParams();
  const { answer } = useAnswer(async () => {
    const { linkId } = await call<OpenedLinkShape>('/invites/open', { method: 'POST', body: { token } });
    return { linkId, invite: await call<InviteShape>(`/invites/${linkId}`) };
  });
  return (
    <main className="min-h-screen grid place-items-center bg-band p-4">
      <div className="card w-full max-w-sm p-7">
        <div className="flex items-center gap-2.5 mb-4">
          <span className="bg-band rounded-md p-1.5">
            <Mark size={28} />
          </span>
          <h1 className="text-2xl">Your place</h1>
        </div>
        {answer.state === 'waiting' && <p role="status">One moment…</p>}
        {answer.state === 'failed' && <p role="alert">This invitation was used, or a newer one was sent. Ask the agency for another.</p>}
        {answer.state === 'here' && <PasswordForm {...answer.value} />}
      </div>
    </main>
  );
}

function PasswordForm({ linkId, invite }: { linkId: string; invite: InviteShape }) {
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
    if (password.length < SHORTEST) return setError(`Choose at least ${SHORTEST} characters.`);
    if (password !== again) return setError('The two are not the same.');
    setState('busy');
    setError(undefined);
    try {
      await call(`/invites/${linkId}/password`, { method: 'POST', body: { password } });
      setState('done');
    } catch (problem) {
      setError(wordsOf(problem));
      setState('typing');
    }
  };
  return (
    <form noValidate onSubmit={(event) => void submit(event)}>
      <p className="mb-4">
        Hello {invite.name}. {invite.agencyName} works with Zesting; choose a password, and you can begin.
      </p>
      <input type="email" className="sr-only" tabIndex={-1} aria-hidden autoComplete="username" value={invite.email} readOnly />
      <Field label="New password" help={`At least ${SHORTEST} characters`}>
        {(control) => (
          <input
            {...control}
            type="password"
            className="field"
            autoComplete="new-password"
            value={password}
            onChange={(event) => setPassword(event.target.value)}
          />
        )}
      </Field>
      <Field label="The same again" error={error}>
        {(control) => (
          <input
            {...control}
            type="password"
            className="field"
            autoComplete="new-password"
            value={again}
            onChange={(event) => setAgain(event.target.value)}
          />
        )}
      </Field>
      <Button look="main" type="submit" className="w-full" disabled={state === 'busy'}>
        Set the password
      </Button>
    </form>
  );
}
