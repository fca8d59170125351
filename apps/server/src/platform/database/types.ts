import pg from 'pg';

// Days stay text (never a Date), times lose their seconds, big counts are numbers, instants are ISO text.
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text);
pg.types.setTypeParser(pg.types.builtins.TIME, (text) => text.slice(0, 5));
pg.types.setTypeParser(pg.types.builtins.INT8, Number);
pg.types.setTypeParser(pg.types.builtins.NUMERIC, Number);
pg.types.setTypeParser(pg.types.builtins.TIMESTAMPTZ, (text) => instantText(text));

/** PostgreSQL prints `2027-03-16 09:00:00+00`; the rest of the code speaks ISO 8601 with Z. */
function instantText(text: string): string {
  const [, day = '', time = '', offset = ''] = /^(\S+) ([\d:.]+)([+-]\d{2}(?::\d{2})?)$/.exec(text) ?? [];
  if (!day) throw new Error(`not a timestamp: ${text}`);
  if (offset === '+00') return `${day}T${time}Z`;
  throw new Error('the database session must run in UTC');
}
