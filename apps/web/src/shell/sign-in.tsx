import { useQueryClient } from '@tanstack/react-query';
import type { SessionShape } from '@zesting/contract';
import { useState, type FormEvent } from 'react';
import { call, wordsOf } from '../lib/api';
import { sessionQuery } from '../lib/queries';
import { Button } from '../ui/button';
import { Field } from '../ui/field';
import { Mark } from './mark';

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
    <main className="min-h-screen grid place-items-center bg-band p-4">
      <form onSubmit={(event) => void signIn(event)} className="card w-full max-w-sm p-7" noValidate>
        <div className="flex items-center gap-2.5 mb-6">
          <span className="bg-band rounded-md p-1.5">
            <Mark size={28} />
          </span>
          <h1 className="text-2xl">Sign in to Zesting</h1>
        </div>
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
    </main>
  );
}
