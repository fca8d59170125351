import { useQueryClient, useSuspenseQuery } from '@tanstack/react-query';
import type { SessionShape, SetUpBody } from '@zesting/contract';
import { useState, type FormEvent } from 'react';
import { sessionQuery, startQuery } from '../api/agency';
import { ApiProblem, call, wordsOf } from '../lib/api';

import { Button } from '../ui/button';
import { Field } from '../ui/field';
import { TimeField, WeekField, ZoneField } from '../ui/setup-fields';
import { RegionField } from '../parts/region-field';
import { EntryCard } from './entry-card';
import { PasswordField, passwordProblem, SHORTEST_PASSWORD } from './password-field';

type Draft = SetUpBody & { readonly again: string };

/** What the browser says of where it stands, to begin with. */
const here = (): { zone: string; region: string } => ({
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  region: /-([A-Z]{2})\b/.exec(navigator.language)?.[1] ?? 'GB',
});

/** The first page of an empty Zesting: the agency and its first lead. */
export function SetUpPage() {
  const { needsCode } = useSuspenseQuery(startQuery).data;
  const queries = useQueryClient();
  const [draft, setDraft] = useState<Draft>(() => ({
    agencyName: '',
    ...here(),
    weeklyMinutes: [480, 480, 480, 480, 480, 0, 0],
    cutOff: '12:00',
    name: '',
    email: '',
    password: '',
    again: '',
    withStock: true,
    code: '',
  }));
  const [errors, setErrors] = useState<Partial<Record<keyof Draft, string>>>({});
  const [error, setError] = useState<string>();
  const [busy, setBusy] = useState(false);
  const change = (part: Partial<Draft>) => setDraft({ ...draft, ...part });

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const problems = problemsOf(draft, needsCode);
    setErrors(problems);
    setError(Object.keys(problems).length > 0 ? 'Some fields are not right yet.' : undefined);
    if (Object.keys(problems).length > 0) return;
    setBusy(true);
    try {
      const { again: _, code, ...body } = draft;
      const sent: SetUpBody = { ...body, email: body.email.trim(), ...(needsCode ? { code: code ?? '' } : {}) };
      const session = await call<SessionShape>('/start', { method: 'POST', body: sent });
      queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' });
      queries.setQueryData(sessionQuery.queryKey, session);
    } catch (problem) {
      if (problem instanceof ApiProblem && problem.code === 'password.easily_guessed') setErrors({ password: wordsOf(problem) });
      else if (problem instanceof ApiProblem && problem.code === 'agency.code_wrong') setErrors({ code: wordsOf(problem) });
      setError(wordsOf(problem));
      setBusy(false);
    }
  };

  const text = (key: 'agencyName' | 'name' | 'email', label: string, extra: { type?: string; autoComplete: string; help?: string }) => (
    <Field label={label} required error={errors[key]} help={extra.help}>
      {(control) => (
        <input
          {...control}
          className="field"
          type={extra.type ?? 'text'}
          autoComplete={extra.autoComplete}
          maxLength={key === 'email' ? 200 : 100}
          value={draft[key]}
          onChange={(event) => change({ [key]: event.target.value })}
        />
      )}
    </Field>
  );

  return (
    <EntryCard title="Set up your agency" wide>
      <form noValidate onSubmit={(event) => void submit(event)}>
        <p className="text-muted mb-4 max-w-[65ch]">
          Zesting is empty. Two things are enough to begin: the agency, and you as its first lead. All of it can be changed later, under
          Setup.
        </p>
        <div className="grid gap-x-8 lg:grid-cols-2">
          <fieldset className="min-w-0">
            <legend className="font-display font-semibold text-lg mb-2">The agency</legend>
            {text('agencyName', 'Name', { autoComplete: 'organization', help: 'As your clients read it' })}
            <ZoneField value={draft.zone} onChange={(zone) => change({ zone })} />
            <RegionField value={draft.region} onChange={(region) => change({ region })} />
            <TimeField
              label="Cut-off"
              help="Work that arrives later in its doer’s day begins on their next"
              value={draft.cutOff}
              onChange={(cutOff) => change({ cutOff })}
            />
            <WeekField label="Working hours" value={draft.weeklyMinutes} onChange={(weeklyMinutes) => change({ weeklyMinutes })} />
          </fieldset>
          <fieldset className="min-w-0">
            <legend className="font-display font-semibold text-lg mb-2">You</legend>
            {text('name', 'Your name', { autoComplete: 'name' })}
            {text('email', 'Your e-mail', { type: 'email', autoComplete: 'username', help: 'You sign in with it' })}
            <PasswordField
              label="Password"
              help={`At least ${SHORTEST_PASSWORD} characters, nothing that is guessed first`}
              error={errors.password}
              value={draft.password}
              onChange={(password) => change({ password })}
            />
            <PasswordField label="The same again" error={errors.again} value={draft.again} onChange={(again) => change({ again })} />
            {needsCode && (
              <Field
                label="Set-up code"
                required
                error={errors.code}
                help="Zesting’s log says it at the start, so that no stranger is quicker than you."
              >
                {(control) => (
                  <input
                    {...control}
                    className="field tabular"
                    autoComplete="off"
                    value={draft.code ?? ''}
                    onChange={(event) => change({ code: event.target.value })}
                  />
                )}
              </Field>
            )}
            <label className="flex items-start gap-2 mt-2">
              <input
                type="checkbox"
                className="size-4 mt-0.5 accent-pine"
                checked={draft.withStock}
                onChange={(event) => change({ withStock: event.target.checked })}
              />
              <span>
                Begin with a starting stock
                <span className="block text-muted text-[13px]">
                  The usual formats with a route for each, the skills that they ask for, and a form for new clients. Each can be changed or
                  taken out.
                </span>
              </span>
            </label>
          </fieldset>
        </div>
        {error && (
          <p role="alert" className="text-rhubarb font-medium mt-3">
            {error}
          </p>
        )}
        <Button look="main" type="submit" className="mt-4" disabled={busy}>
          {busy ? 'Setting up…' : 'Set up and begin'}
        </Button>
      </form>
    </EntryCard>
  );
}

function problemsOf(draft: Draft, needsCode: boolean): Partial<Record<keyof Draft, string>> {
  const password = passwordProblem(draft.password, draft.password);
  return {
    ...(draft.agencyName.trim() === '' ? { agencyName: 'Give the agency’s name.' } : {}),
    ...(draft.name.trim() === '' ? { name: 'Tell your name.' } : {}),
    ...(/^\S+@\S+\.\S+$/.test(draft.email.trim()) ? {} : { email: 'This is no e-mail address.' }),
    ...(password ? { password } : {}),
    ...(draft.password === draft.again ? {} : { again: 'The two are not the same.' }),
    ...(needsCode && (draft.code ?? '').trim() === '' ? { code: 'The code is needed.' } : {}),
  };
}
