import type { ProblemCode } from '@zesting/contract';
import { QueryFailedError } from 'typeorm';

/** What it means when two do the same at once and the database lets only one: each unique constraint that callers can meet. */
const MEANINGS: Readonly<Record<string, ProblemCode>> = {
  uq_people_email: 'person.email_taken',
  uq_clients_code: 'client.code_taken',
  uq_contacts_email: 'client.contact_twice',
  uq_placements_moment: 'placement.exists',
  uq_packet_items_open: 'piece.with_client_already',
  uq_pieces_request: 'request.already_decided',
};

/** The problem that a broken constraint stands for; undefined for any other error. */
export function brokenRule(error: unknown): ProblemCode | undefined {
  if (!(error instanceof QueryFailedError)) return undefined;
  const { code, constraint } = error.driverError as { code?: string; constraint?: string }; // the driver's own error
  return code === '23505' && constraint !== undefined ? MEANINGS[constraint] : undefined;
}
