/** What fits on a channel, as core checks it: an SQL expression over the row of that alias. */
export const channelRules = (channel: string): string =>
  `jsonb_build_object('copyLimit', ${channel}.copy_limit, 'countsTags', ${channel}.counts_tags, 'tagLimit', ${channel}.tag_limit,
    'linksWork', ${channel}.links_work, 'mediaLimit', ${channel}.media_limit, 'minWidth', ${channel}.min_width, 'needsMedia', ${channel}.needs_media,
    'ratio', ${channel}.ratio, 'otherShapes', to_jsonb(${channel}.other_shapes), 'cutsMedia', ${channel}.cuts_media,
    'clipMinSeconds', ${channel}.clip_min_seconds, 'clipMaxSeconds', ${channel}.clip_max_seconds, 'fileLimitMb', ${channel}.file_limit_mb)`;

/** What of it says which pictures and clips are seen there, and how: all that those outside the agency are told. */
export const channelShapes = (channel: string): string =>
  `jsonb_build_object('ratio', ${channel}.ratio, 'otherShapes', to_jsonb(${channel}.other_shapes), 'cutsMedia', ${channel}.cuts_media,
    'mediaLimit', ${channel}.media_limit)`;

/** What a channel lays over pictures and where it folds text, for previews: an SQL expression as above. */
export const channelLooks = (channel: string): string =>
  `jsonb_build_object('safeTop', ${channel}.safe_top, 'safeBottom', ${channel}.safe_bottom, 'safeSides', ${channel}.safe_sides,
    'foldsAt', ${channel}.folds_at)`;
