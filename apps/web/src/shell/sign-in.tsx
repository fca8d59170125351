import { useQueryClient } from '@tanstack/react-query';
import type { SessionShape } from '@zesting/contract';
import { useState, type FormEvent } from 'react';
import { Link } from 'react-router';
import { sessionQuery } from '../api/agency';
import { call, wordsOf } from '../lib/api';

import { Button } from '../ui/button';
import { Field } from '../ui/field';
import { EntryCard } from './entry-card';

export function SignIn() {
  const queries = useQueryClient();
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [error, setError] = useState<string>();
  const [busy, setBusy] = useState(false);

  const signIn = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setError(undefined);
    try {
      const session = await call<SessionShape>('/session', { method: 'POST', body: { email: email.trim(), password } });
      queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' });
      queries.setQueryData(sessionQuery.queryKey, session);
    } catch (problem) {
      setError(wordsOf(problem));
      setBusy(false);
    }
  };

  return (
    <EntryCard title="Sign in to Zesting">
      <form onSubmit={(event) => void signIn(event)} noValidate>
        <Field label="E-mail">
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
        <Field label="Password" error={error}>
          {(control) => (
            <input
              {...control}
              className="field"
              type="password"
              autoComplete="current-password"
              value={password}
              onChange={(event) => setPassword(event.target.value)}
            />
          )}
        </Field>
        <Button look="main" type="submit" className="w-full mt-1" disabled={busy}>
          {busy ? 'Signing in…' : 'Sign in'}
        </Button>
      </form>
      <Link
        to={`/forgotten${email.trim() ? `?email=${encodeURIComponent(email.trim())}` : ''}`}
        className="text-pine underline inline-block mt-4"
      >
        Forgotten your password?
      </Link>
    </EntryCard>
  );
}
