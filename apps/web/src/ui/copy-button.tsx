import { Copy } from 'lucide-react';
import { toast } from 'sonner';
import { Button } from './button';

interface CopyButtonProps {
  readonly name: string;
  readonly text: string;
  /** the same laid out, for where it is put that takes HTML; null: there is only the text */
  readonly html?: string | null;
}

/** Both kinds at once: whoever takes it chooses. A browser that knows no kinds takes the text. */
const onClipboard = (text: string, html: string | null): Promise<void> =>
  html === null || !('write' in navigator.clipboard) || typeof ClipboardItem === 'undefined'
    ? navigator.clipboard.writeText(text)
    : navigator.clipboard.write([
        new ClipboardItem({ 'text/plain': new Blob([text], { type: 'text/plain' }), 'text/html': new Blob([html], { type: 'text/html' }) }),
      ]);

/** Puts a text on the clipboard with one press, and says that it did; where the browser does not allow it, it says so. */
export function CopyButton({ name, text, html = null }: CopyButtonProps) {
  const copy = () =>
    onClipboard(text, html).then(
      () => toast(`${name}: copied`),
      () => toast.error('This browser does not let a page copy. Mark the text and copy it by hand.'),
    );
  return (
    <Button look="quiet" onClick={() => void copy()} aria-label={`Copy: ${name}`}>
      <Copy size={15} aria-hidden /> Copy
    </Button>
  );
}
