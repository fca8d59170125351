/** Every problem that the API answers, by its stable code. The web turns codes into plain words. */
export const PROBLEMS = {
  'access.signed_out': { status: 401, title: 'Not signed in' },
  'access.sign_in_failed': { status: 401, title: 'E-mail or password is wrong' },
  'access.link_not_open': { status: 401, title: 'This link is not open or no longer valid' },
  'access.refused': { status: 403, title: 'Not allowed' },
  'access.wrong_origin': { status: 403, title: 'The request came from another site' },
  'access.not_found': { status: 404, title: 'Not found' },
  'http.invalid': { status: 400, title: 'Some fields are not right' },
  'http.version_missing': { status: 428, title: 'Say which version you changed (If-Match)' },
  'http.changed_meanwhile': { status: 412, title: 'Somebody else changed this meanwhile' },
  'idempotency.key_missing': { status: 400, title: 'An Idempotency-Key is needed' },
  'idempotency.other_body': { status: 422, title: 'This key was used for another request' },
  'time.in_gap': { status: 422, title: 'The clocks jump over that time on that day' },
  'workdays.none_in_reach': { status: 422, title: 'Somebody on the path has no working days' },
  'plan.circular': { status: 422, title: 'Steps wait for each other in a ring' },
  'file.type_refused': { status: 415, title: 'This kind of file is not taken' },
  'file.broken': { status: 422, title: 'This picture is damaged' },
  'file.missing': { status: 400, title: 'No file came with the request' },
  'file.unknown': { status: 422, title: 'One of the files is not known here' },
  'request.answers_wrong': { status: 422, title: 'Some answers are not right' },
  'request.already_decided': { status: 409, title: 'This request was decided already' },
  'channel.unknown': { status: 422, title: 'This channel is not one of the client’s' },
  'route.unknown': { status: 422, title: 'This route does not exist' },
  'pillar.unknown': { status: 422, title: 'This pillar is not one of the client’s' },
  'person.unknown': { status: 422, title: 'This person does not exist or has left' },
  'step.not_available': { status: 409, title: 'This step waits for another one' },
  'step.already_finished': { status: 409, title: 'This step is finished' },
  'step.client_decides': { status: 409, title: 'The client does this step: send the piece for sign-off' },
  'step.not_a_check': { status: 409, title: 'Only a check hands work back' },
  'step.other_doer': { status: 403, title: 'This step is somebody else’s' },
  'piece.nothing_to_hand_in': { status: 422, title: 'There is nothing to hand in yet: add copy or a picture' },
  'piece.not_ready_for_client': { status: 409, title: 'Steps before sign-off are still open' },
  'piece.with_client_already': { status: 409, title: 'The client has this piece already' },
  'piece.signed_already': { status: 409, title: 'Every part of this piece is signed' },
  'piece.other_client': { status: 422, title: 'All pieces of a packet belong to one client' },
  'packet.no_approver': { status: 422, title: 'No contact of this client may sign off' },
  'packet.due_on_day_off': { status: 422, title: 'The client does not work on that day' },
  'packet.due_in_past': { status: 422, title: 'That day has passed' },
  'decision.not_an_approver': { status: 403, title: 'This contact does not sign off' },
  'decision.not_in_packet': { status: 404, title: 'This piece is not in the packet' },
  'decision.other_version': { status: 409, title: 'A newer version was sent: look at that one' },
  'decision.closed': { status: 409, title: 'This piece was decided already' },
  'decision.remark_missing': { status: 422, title: 'Say what should change' },
  'placement.exists': { status: 409, title: 'The piece stands on this channel already' },
  'placement.out': { status: 409, title: 'What is out keeps its date' },
  'placement.cancelled': { status: 409, title: 'This placement was cancelled' },
  'placement.not_signed_off': { status: 409, title: 'The client has not signed this part' },
  'placement.in_past': { status: 422, title: 'That time has passed' },
  'placement.undated': { status: 409, title: 'Give it a date first' },
} as const satisfies Record<string, { status: number; title: string }>;

export type ProblemCode = keyof typeof PROBLEMS;

/** Problem details of RFC 9457, as every refusal is answered. */
export class ProblemDetails {
  type: string;
  code: string;
  title: string;
  status: number;
  errors?: Record<string, string[]>;
}
