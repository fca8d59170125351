/** In SQL: core's `PublishWindow` of a piece. @param piece what its id is called */
export const windowOf = (piece: string): string =>
  `(select jsonb_build_object('notBeforeOn', w.not_before_on, 'notAfterOn', w.not_after_on)
   from (select 1) one left join embargoes w on w.piece_id = ${piece})`;
