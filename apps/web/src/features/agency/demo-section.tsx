import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { AgencySettingsShape } from '@zesting/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { demoQuery } from '../../api/agency';
import { call, wordsOf } from '../../lib/api';
import { count } from '../../lib/format';
import { forgetKept } from '../../lib/kept';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';

/** The way out of the demo: everything in it goes, and the first page sets up an agency of one's own. */
export function DemoSection({ agency }: { agency: AgencySettingsShape }) {
  const [asks, setAsks] = useState(false);
  return (
    <section aria-label="Leave the demo" className="card p-4">
      <h2 className="text-lg mb-1">Start with our own agency</h2>
      <p className="text-muted mb-3 max-w-[70ch]">
        {agency.name} is made up, for trying things out. When you have seen enough, leave it: Zesting is empty then, and its first page sets
        up your agency. No later start brings the demo back.
      </p>
      <Button look="danger" onClick={() => setAsks(true)}>
        Leave the demo…
      </Button>
      {asks && <LeaveDialog agency={agency} onClose={() => setAsks(false)} />}
    </section>
  );
}

function LeaveDialog({ agency, onClose }: { agency: AgencySettingsShape; onClose: () => void }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [error, setError] = useState<string>();
  const [busy, setBusy] = useState(false);
  const { data: demo } = useQuery(demoQuery);
  const leave = async () => {
    setBusy(true);
    setError(undefined);
    try {
      await call('/agency/leave-demo', { method: 'POST', body: { name } });
      forgetKept();
      await navigate('/');
      queries.clear();
      window.location.assign('/');
    } catch (problem) {
      setError(wordsOf(problem));
      setBusy(false);
    }
  };
  return (
    <Dialog open onClose={onClose} title="Leave the demo for good?" description="This cannot be undone.">
      <p className="mb-3">
        What goes:{' '}
        {demo
          ? `${count(demo.clients, 'client')}, ${count(demo.people, 'person', 'people')} with their sign-ins (yours too), ${count(demo.requests, 'request')} and ${count(demo.pieces, 'piece')}, with their files and record. What you added yourself while trying goes with it.`
          : 'everything in it.'}
      </p>
      <Field label={`Type the agency’s name, ${agency.name}, to go on`} error={error}>
        {(control) => (
          <input {...control} className="field" autoComplete="off" value={name} onChange={(event) => setName(event.target.value)} />
        )}
      </Field>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Stay in the demo</Button>
        <Button look="danger" disabled={busy || name.trim() !== agency.name} onClick={() => void leave()}>
          Leave the demo
        </Button>
      </div>
    </Dialog>
  );
}
