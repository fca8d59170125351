import { ValidationPipe, type ValidationError } from '@nestjs/common';
import { Problem } from './problem.js';

/** Field errors by path, each a list of broken rules. */
function fieldErrors(errors: readonly ValidationError[], prefix = ''): Record<string, string[]> {
  return Object.assign(
    {},
    ...errors.map((error) => ({
      ...(error.constraints ? { [`${prefix}${error.property}`]: Object.keys(error.constraints) } : {}),
      ...fieldErrors(error.children ?? [], `${prefix}${error.property}.`),
    })),
  ) as Record<string, string[]>; // merged from records of that shape
}

/** Checks bodies and queries against the contract's classes; refuses what they do not name. */
export const contractPipe = (): ValidationPipe =>
  new ValidationPipe({
    whitelist: true,
    forbidNonWhitelisted: true,
    transform: true,
    exceptionFactory: (errors) => Problem.of('http.invalid', { errors: fieldErrors(errors) }),
  });
