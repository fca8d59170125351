import { useState, type FormEvent } from 'react';
import { Link, useSearchParams } from 'react-router';
import { call, wordsOf } from '../lib/api';
import { Button } from '../ui/button';
import { Field } from '../ui/field';
import { EntryCard } from './entry-card';

/** A forgotten password: asking for a link to choose a new one. */
export function ForgottenPage() {
  const [search] = useSearchParams();
  const [email, setEmail] = useState(search.get('email') ?? '');
  const [error, setError] = useState<string>();
  const [state, setState] = useState<'typing' | 'busy' | 'sent'>('typing');
  const ask = async (event: FormEvent) => {
    event.preventDefault();
    if (!/^\S+@\S+\.\S+$/.test(email.trim())) return setError('This is no e-mail address.');
    setState('busy');
    setError(undefined);
    try {
      await call('/resets', { method: 'POST', body: { email: email.trim() } });
      setState('sent');
    } catch (problem) {
      setError(wordsOf(problem));
      setState('typing');
    }
  };
  return (
    <EntryCard title="A new password">
      {state === 'sent' ? (
        <div role="status">
          <p className="mb-2">
            If somebody works here under <strong className="[overflow-wrap:anywhere]">{email.trim()}</strong>, a link is on its way to them.
            It opens for an hour.
          </p>
          <p className="text-muted">Nothing came? Look among unwanted mail, or ask a lead to send you one.</p>
        </div>
      ) : (
        <form noValidate onSubmit={(event) => void ask(event)}>
          <Field label="E-mail" help="The address that you sign in with" error={error}>
            {(control) => (
              <input
                {...control}
                className="field"
                type="email"
                autoComplete="username"
                value={email}
                onChange={(event) => setEmail(event.target.value)}
              />
            )}
          </Field>
          <Button look="main" type="submit" className="w-full" disabled={state === 'busy'}>
            Send me a link
          </Button>
        </form>
      )}
      <Link to="/" className="text-pine underline inline-block mt-4">
        Back to signing in
      </Link>
    </EntryCard>
  );
}
