/** An expected outcome: a value, or a failure with a stable code. Bugs are thrown instead. */
export type Result<T, F extends Failure = Failure> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly failure: F };

/** A stable code such as `workdays.none_in_reach`, with the facts a message needs. */
export interface Failure {
  readonly code: string;
  readonly detail?: Readonly<Record<string, string | number>>;
}

export const ok = <T>(value: T): { readonly ok: true; readonly value: T } => ({ ok: true, value });

export const fail = <F extends Failure>(failure: F): { readonly ok: false; readonly failure: F } => ({ ok: false, failure });

/** The value of a result that cannot have failed here; throws otherwise, since that would be a bug. */
export function getValue<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(`unexpected failure: ${result.failure.code}`);
  return result.value;
}
