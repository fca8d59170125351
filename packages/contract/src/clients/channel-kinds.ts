/** The generic kinds of channel. */
export const CHANNEL_KINDS = [
  'photo_feed',
  'short_clip_feed',
  'microblog',
  'professional_network',
  'video_site',
  'blog',
  'newsletter',
  'podcast',
  'community_board',
] as const;
export type ChannelKind = (typeof CHANNEL_KINDS)[number];
