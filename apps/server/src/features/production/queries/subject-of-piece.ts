/** In SQL: the topic that a piece is about, by itself or by the idea that it was made of; null where nobody said. @param piece what its id is called */
export const subjectOfPiece = (piece: string): string =>
  `coalesce((select u.topic_id from topic_uses u where u.piece_id = ${piece}),
     (select u.topic_id from ideas x join topic_uses u on u.idea_id = x.id where x.piece_id = ${piece} limit 1))`;
