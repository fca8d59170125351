/** Columns of an upload as the contract shows it. */
export const UPLOAD_COLUMNS = 'id as "assetId", name, mime, bytes, width, height';
