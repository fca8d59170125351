import { BRIEF_FACTS, DEPTH_LIMIT, FIELD_KINDS, FILE_KINDS, FORM_FORMAT, FORM_LANGUAGES, ITEMS_LIMIT, TESTS } from '@zesting/core';

type Schema = Readonly<Record<string, unknown>>;

const text = (maxLength: number, minLength = 0): Schema => ({ type: 'string', minLength, maxLength });
const list = (items: Schema, maxItems: number): Schema => ({ type: 'array', items, maxItems });
const object = (properties: Readonly<Record<string, Schema>>, required: readonly string[]): Schema => ({
  type: 'object',
  properties,
  required,
  additionalProperties: false,
});
const day: Schema = { type: 'string', pattern: '^\\d{4}-\\d{2}-\\d{2}$' };
const dayOrToday: Schema = { anyOf: [{ const: 'today' }, day] };
const orNull = (schema: Schema): Schema => ({ anyOf: [schema, { type: 'null' }] });
const ref = (name: string): Schema => ({ $ref: `#/$defs/${name}` });
const key = text(40, 1);
const shared = { key, label: text(500), help: text(2000), shownIf: ref('condition') };

/** The part that is the same for a form in the database and one in a file. */
const DEFS: Readonly<Record<string, Schema>> = {
  test: object({ field: key, is: { enum: TESTS }, value: text(200) }, ['field', 'is']),
  condition: {
    description: `Tests joined by and (all) or or (any), ${DEPTH_LIMIT} levels at most.`,
    anyOf: [ref('test'), object({ all: list(ref('condition'), 20) }, ['all']), object({ any: list(ref('condition'), 20) }, ['any'])],
  },
  option: object({ value: text(200), label: text(200), under: list(text(200), 100) }, ['value']),
  field: object(
    {
      ...shared,
      kind: { enum: FIELD_KINDS },
      needed: { anyOf: [{ type: 'boolean' }, ref('condition')] },
      options: list(ref('option'), 100),
      parent: key,
      serves: { enum: ['title', 'wish_date', ...BRIEF_FACTS] },
      agencyOnly: { type: 'boolean' },
      preset: { anyOf: [text(10_000), list(text(200), 100)] },
      min: { type: 'number' },
      max: { type: 'number' },
      whole: { type: 'boolean' },
      unit: text(20),
      notBefore: dayOrToday,
      notAfter: dayOrToday,
      several: { type: 'boolean' },
      fileKinds: list({ enum: FILE_KINDS }, FILE_KINDS.length),
      megabytes: { type: 'number', minimum: 1, maximum: 2000 },
    },
    ['key', 'kind', 'label'],
  ),
  section: object({ ...shared, kind: { const: 'section' } }, ['key', 'kind', 'label']),
  text: object({ key, kind: { const: 'text' }, label: text(5000), shownIf: ref('condition') }, ['key', 'kind', 'label']),
  item: { anyOf: [ref('field'), ref('section'), ref('text')] },
};

const SHARED: Readonly<Record<string, Schema>> = {
  title: text(100),
  intro: text(2000),
  language: { enum: FORM_LANGUAGES },
  items: list(ref('item'), ITEMS_LIMIT),
  thanks: text(2000),
  opensOn: orNull(day),
  closesOn: orNull(day),
  noticeDays: { type: 'integer', minimum: 0, maximum: 260 },
  answerDays: { type: 'integer', minimum: 0, maximum: 60 },
};
const ruled = (takes: Schema): Schema => list(object({ when: ref('condition'), takes }, ['takes']), 50);
const whole = (properties: Readonly<Record<string, Schema>>): Schema => ({
  ...object(properties, Object.keys(properties)),
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  $defs: DEFS,
});

/** JSON Schema 2020-12 of a form as the server keeps it: routes, pillars, channels and people by id. */
export const FORM_CONTENT_SCHEMA: Schema = whole({
  ...SHARED,
  routeId: orNull(text(40)),
  rules: ruled(object({ routeId: text(40, 1), pillarId: text(40, 1), channelIds: list(text(40, 1), 20), ownerId: text(40, 1) }, [])),
});

/** JSON Schema 2020-12 of a form as a file, published at `/api/schemas/form.json`: routes, pillars and channels by name. */
export const FORM_DOCUMENT_SCHEMA: Schema = {
  title: 'An intake form of Zesting',
  ...whole({
    format: { const: FORM_FORMAT },
    ...SHARED,
    route: orNull(text(100)),
    rules: ruled(object({ route: text(100), pillar: text(100), channels: list(text(100), 20), owner: { const: 'lead_person' } }, [])),
  }),
};
