export { Prose, ProseBlocks } from './prose';
export { ProseEditor, type ProseEditorProps } from './prose-editor';
