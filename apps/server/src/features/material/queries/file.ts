/** SQL: the file `a` as it is shown, or null. */
export const FILE = `case when a.id is not null then jsonb_build_object('assetId', a.id, 'name', a.name, 'mime', a.mime, 'bytes', a.bytes, 'width', a.width, 'height', a.height) end as file`;
