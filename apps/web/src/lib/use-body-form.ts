import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import type { FormEvent } from 'react';
import { useForm, useWatch, type DefaultValues, type FieldPath, type FieldValues, type PathValue } from 'react-hook-form';
import { ApiProblem, wordsOf } from './api';
import { ruleWords } from './rule-words';
import { fieldWords } from './value-words';

/** Words at a field for a rule that means something special there, by field and rule. */
type Words<Body> = Partial<Record<keyof Body & string, Readonly<Record<string, string>>>>;

export interface BodyForm<Body> {
  readonly body: Body;
  readonly change: (part: Partial<Body>) => void;
  /** what is wrong at a field, in words */
  readonly errorOf: (name: keyof Body & string) => string | undefined;
  /** what is wrong with the whole */
  readonly wrong: string | undefined;
  readonly busy: boolean;
  /** back to what the fields held at first */
  readonly reset: () => void;
  /** for the form element: its first wrong field is gone to */
  readonly onSubmit: (event: FormEvent<HTMLFormElement>) => void;
}

/** Names what is wrong where no field of the form shows it. */
const unseen = (names: readonly string[]): string =>
  `This cannot be taken: ${names.map((name) => fieldWords(name.replace(/Ids?$/, ''))).join(', ')}.`;

interface Options<Body> {
  /** sends the body; a refusal of the server comes back to the fields that it names */
  readonly send: (body: Body) => Promise<unknown>;
  readonly words?: Words<Body>;
}

/**
 * A form whose answer is a body of the contract. The contract's own rules are asked before it is sent, and what is wrong is said at its field.
 * @param Body the contract's class
 * @param first what the fields hold at first
 */
export function useBodyForm<Body extends FieldValues>(
  Body: new () => Body,
  first: Body,
  { send, words = {} }: Options<Body>,
): BodyForm<Body> {
  const form = useForm<Body>({
    defaultValues: first as DefaultValues<Body>, // whole
    resolver: classValidatorResolver(Body, {}, { mode: 'sync' }),
    shouldFocusError: false,
  });
  const body = useWatch({ control: form.control });
  const { errors, isSubmitting, isSubmitted } = form.formState;
  /** Sends what holds. Answers the names of the fields that do not, by the contract or by the server. */
  async function submit(event: FormEvent<HTMLFormElement>): Promise<string[]> {
    let wrong: string[] = [];
    await form.handleSubmit(
      (sent) =>
        send(sent as Body).then(undefined, (problem: unknown) => {
          const named = problem instanceof ApiProblem ? Object.entries(problem.errors).filter(([name]) => name in first) : [];
          for (const [name, rules] of named) form.setError(name as FieldPath<Body>, { type: typeof rules === 'string' ? rules : rules[0] });
          if (named.length === 0) form.setError('root', { message: wordsOf(problem) });
          wrong = named.map(([name]) => name);
        }),
      (found) => (wrong = Object.keys(found)),
    )(event);
    return wrong;
  }
  return {
    body: body as Body, // whole, since it began so
    change: (part) => {
      for (const [name, value] of Object.entries(part))
        form.setValue(name as FieldPath<Body>, value as PathValue<Body, FieldPath<Body>>, {
          shouldDirty: true,
          shouldValidate: isSubmitted,
        });
      form.clearErrors('root');
    },
    errorOf: (name) => {
      const type = errors[name]?.type;
      return type === undefined ? undefined : (words[name]?.[String(type)] ?? ruleWords(String(type)));
    },
    wrong: errors.root?.message,
    busy: isSubmitting,
    reset: () => form.reset(),
    onSubmit: (event) => {
      const element = event.currentTarget;
      const show = (names: readonly string[]) => {
        const seen = element.querySelector<HTMLElement>('[aria-invalid="true"]');
        if (seen) seen.focus();
        else if (names.length > 0) form.setError('root', { message: unseen(names) });
      };
      void submit(event).then((names) => setTimeout(show, 0, names)); // once it is drawn
    },
  };
}
