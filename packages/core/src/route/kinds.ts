/**
 * What a step is: making, looking at what was made, the client bringing what is needed for it, or the client’s word on it. The last two are the
 * client’s: they go by its working days, take nobody’s hours, and have no doer.
 */
export const STEP_KINDS = ['make', 'check', 'deliver', 'sign_off'] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** The kinds that the client does. */
export const CLIENT_KINDS = ['deliver', 'sign_off'] as const satisfies readonly StepKind[];

export const isByClient = (kind: StepKind): boolean => CLIENT_KINDS.some((one) => one === kind);

/** The skill that a step of the client stands under; the agency's own are on its list. */
export const skillOf = ({ kind, skill }: { readonly kind: StepKind; readonly skill: string }): string =>
  isByClient(kind) ? kind : skill.trim();
