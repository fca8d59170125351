import { useQuery } from '@tanstack/react-query';
import { fitsQuery } from '../api/going-out';
import { Findings } from '../ui/findings';

/** What of a piece does not fit on its channels, said before the client is asked to sign it. Nothing where all of it fits. */
export function WhatFits({ pieceId }: { pieceId: string }) {
  const { data } = useQuery(fitsQuery(pieceId));
  if (!data || data.channels.length === 0) return null;
  return (
    <ul aria-label="What does not fit" className="basis-full pl-7 pb-2 grid gap-1">
      {data.channels.map(({ channelId, channelName, findings }) => (
        <li key={channelId} className="flex flex-wrap gap-x-3 text-[13px]">
          <span className="font-medium">{channelName}</span>
          <Findings label={`What does not fit on ${channelName}`} findings={findings} />
        </li>
      ))}
    </ul>
  );
}
