import { lazy, Suspense } from 'react';
import { Prose } from './prose';

export interface ProseEditorProps {
  /** what it is called */
  readonly label: string;
  readonly describedBy: string | undefined;
  /** the copy as `readProse` reads it */
  readonly source: string;
  readonly onChange: (source: string) => void;
  /** the language of the copy, for the browser's spell check (BCP 47) */
  readonly language: string;
  /** words that no spell check marks */
  readonly ownWords: readonly string[];
}

/** An editor is large: it is loaded where somebody writes. */
const Editor = lazy(() => import('./editor').then((module) => ({ default: module.Editor })));

/** Writes a copy that is laid out; until the editor is there, the copy can be read. */
export const ProseEditor = (props: ProseEditorProps) => (
  <Suspense
    fallback={
      <div className="field min-h-40" aria-busy>
        <Prose source={props.source} />
      </div>
    }
  >
    <Editor {...props} />
  </Suspense>
);
