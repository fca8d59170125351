import { useQueryClient } from '@tanstack/react-query';
import type { ContentShape, PieceShape, UploadShape } from '@zesting/contract';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { deskKeys, pieceKeys } from '../../api/production';
import { ApiProblem, call, wordsOf } from '../../lib/api';
import { useKept } from '../../lib/kept';

/** A content as it is being edited. */
export type Draft = Pick<ContentShape, 'shared' | 'channels'>;

/** A content as it is saved. A cover that is no longer among the pictures is none. */
export const bodyOf = (draft: Draft) => ({
  shared: {
    copy: draft.shared.copy,
    disclosure: draft.shared.disclosure,
    isLaidOut: draft.shared.isLaidOut,
    media: draft.shared.media.map(({ assetId, alt, cover }, _, all) => ({
      assetId,
      alt,
      cover: all.some(({ hash }) => hash === cover) ? (cover ?? null) : null,
    })),
    texts: draft.shared.texts.flatMap(({ key, text, others }) =>
      text.trim() === '' && others.length === 0 ? [] : [{ key, text, others }],
    ),
  },
  channels: draft.channels.map(({ channelId, copy, tags, firstComment, link, media = null, crops = {} }) => ({
    channelId,
    copy,
    tags,
    firstComment,
    link,
    media,
    crops: Object.entries(crops)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([hash, { ratio, x, y, size }]) => ({ hash, ratio, x, y, size })),
  })),
});

const sameContent = (a: Draft, b: Draft): boolean => JSON.stringify(bodyOf(a)) === JSON.stringify(bodyOf(b));

/**
 * The working copy of a piece while it is edited. What others save meanwhile replaces it only where nothing was typed here;
 * a save against an older state is refused by the server, and both states are shown.
 */
export function useDraft(piece: PieceShape) {
  const queries = useQueryClient();
  const [edited, setEdited] = useKept<{ draft: Draft; base: number }>(`piece:${piece.id}:content`);
  const latest = useRef(piece.content);
  useEffect(() => {
    latest.current = piece.content;
  });
  const [theirs, setTheirs] = useState<PieceShape | null>(null);
  const [busy, setBusy] = useState(false);
  const draft: Draft = edited?.draft ?? piece.content;
  const isDirty = edited !== null && !sameContent(edited.draft, piece.content);

  /** What is typed back to what is saved is nothing to be kept. */
  const change = (next: Draft) =>
    setEdited(sameContent(next, piece.content) ? null : { draft: next, base: edited?.base ?? piece.content.version });

  /** Shows a state of the piece. One that is still on its way was asked for before, and would take the place of this one. */
  const take = async (now: PieceShape) => {
    const queryKey = pieceKeys.one(piece.id);
    await queries.cancelQueries({ queryKey, exact: true });
    queries.setQueryData(queryKey, now);
    // what is drawn hears of it a moment later: until then what was typed stands, and nothing of it goes away in between
    await new Promise((resolve) => setTimeout(resolve));
  };

  /** Saves the draft; false when it could not be. `base` is the version that it replaces. */
  const save = async (base = edited?.base ?? piece.content.version): Promise<boolean> => {
    if (!isDirty) return true;
    setBusy(true);
    try {
      const saved = await call<PieceShape>(`/pieces/${piece.id}/content`, { method: 'PUT', body: bodyOf(draft), version: base });
      await take(saved);
      void queries.invalidateQueries({ queryKey: deskKeys.all });
      setEdited(null);
      setTheirs(null);
      return true;
    } catch (error) {
      if (error instanceof ApiProblem && error.code === 'http.changed_meanwhile')
        setTheirs(error.body['theirs'] as PieceShape); // what this problem carries
      else toast.error(wordsOf(error));
      return false;
    } finally {
      setBusy(false);
    }
  };

  /** Takes the other one's state and drops what was typed here. */
  const takeTheirs = async () => {
    if (theirs) await take(theirs);
    setEdited(null);
    setTheirs(null);
  };

  /** Puts a file that arrived into what is being edited now, whatever was typed while it was on its way. */
  const addMedium = (file: UploadShape, alt = '') =>
    setEdited((before) => {
      const { shared, channels } = before?.draft ?? latest.current;
      const media = [...shared.media, { ...file, alt }];
      return { draft: { shared: { ...shared, media }, channels }, base: before?.base ?? latest.current.version };
    });

  return {
    draft,
    isDirty,
    busy,
    theirs,
    change,
    save,
    addMedium,
    takeTheirs,
    keepMine: () => save(theirs?.content.version),
    closeConflict: () => setTheirs(null),
  };
}
