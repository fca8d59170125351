import { HttpException } from '@nestjs/common';
import type { Failure, Result } from '@zesting/core';
import { PROBLEMS, type ProblemCode } from '@zesting/contract';

/** A problem of RFC 9457: what the web turns into plain words by its code. */
export class Problem extends HttpException {
  private constructor(
    readonly code: string,
    status: number,
    title: string,
    readonly extra: Readonly<Record<string, unknown>>,
  ) {
    super({ type: `/problems/${code}`, code, title, status, ...extra }, status);
  }

  /** A problem by its code; `extra` members are added to the answer. */
  static of(code: ProblemCode, extra: Readonly<Record<string, unknown>> = {}): Problem {
    const { status, title } = PROBLEMS[code];
    return new Problem(code, status, title, extra);
  }

  /** The problem of an expected failure. A code that is not listed is a bug. */
  static from(failure: Failure): Problem {
    if (!(failure.code in PROBLEMS)) throw new Error(`unlisted problem code ${failure.code}`);
    return Problem.of(failure.code as ProblemCode, failure.detail ? { detail: failure.detail, ...failure.detail } : {});
  }
}

/** The value of a result; its failure is thrown as a problem. */
export function valueOrProblem<T>(result: Result<T>): T {
  if (!result.ok) throw Problem.from(result.failure);
  return result.value;
}
