/** The first picture of a content column, as an SQL expression: its id, or null. */
export const firstPicture = (content: string): string =>
  `(select a.id from jsonb_array_elements(${content} -> 'shared' -> 'media') with ordinality m (medium, at)
    join assets a on a.id = (m.medium ->> 'assetId')::uuid and a.mime like 'image/%' order by m.at limit 1)`;
