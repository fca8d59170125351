/** Whatever runs a statement and gives its rows: a transaction, a connection, a worker's own connection. */
export interface Reader {
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- as TypeORM's own signature, whose managers are readers
  query(sql: string, parameters?: any[]): Promise<any>;
}

/** The rows of a query. */
export const rowsOf = <Row>(reader: Reader, sql: string, parameters: readonly unknown[] = []): Promise<Row[]> =>
  reader.query(sql, [...parameters]) as Promise<Row[]>; // as asked
