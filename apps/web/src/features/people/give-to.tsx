import { useQuery } from '@tanstack/react-query';
import type { PersonPageShape } from '@zesting/contract';
import { useState } from 'react';
import { peopleQuery } from '../../api/people';
import { Button } from '../../ui/button';

interface GiveToProps {
  /** who gives */
  readonly person: PersonPageShape;
  /** what is given, such as *Give 3 steps to* */
  readonly words: string;
  readonly busy: boolean;
  readonly onGive: (to: { readonly id: string; readonly name: string }) => void;
}

/** Somebody else who is here, to be given what somebody has. */
export function GiveTo({ person, words, busy, onGive }: GiveToProps) {
  const { data: people = [] } = useQuery(peopleQuery);
  const [to, setTo] = useState('');
  const others = people.filter((other) => other.active && other.id !== person.id);
  const chosen = others.find(({ id }) => id === to);
  return (
    <>
      <select className="field max-w-56" aria-label={words} value={to} onChange={(event) => setTo(event.target.value)}>
        <option value="">{words}…</option>
        {others.map((other) => (
          <option key={other.id} value={other.id}>
            {other.name}
          </option>
        ))}
      </select>
      <Button look="main" disabled={!chosen || busy} onClick={() => chosen && onGive(chosen)}>
        Give
      </Button>
    </>
  );
}
