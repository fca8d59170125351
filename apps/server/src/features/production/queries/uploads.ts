/** Columns of an upload as the contract shows it. */
export const UPLOAD_COLUMNS = 'id as "assetId", name, hash, mime, bytes, width, height, duration_ms as "durationMs"';
