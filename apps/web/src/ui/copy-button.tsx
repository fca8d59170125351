import { Copy } from 'lucide-react';
import { toast } from 'sonner';
import { Button } from './button';

/** Puts a text on the clipboard with one press, and says that it did; where the browser does not allow it, it says so. */
export function CopyButton({ name, text }: { name: string; text: string }) {
  const copy = () =>
    navigator.clipboard.writeText(text).then(
      () => toast(`${name}: copied`),
      () => toast.error('This browser does not let a page copy. Mark the text and copy it by hand.'),
    );
  return (
    <Button look="quiet" onClick={() => void copy()} aria-label={`Copy: ${name}`}>
      <Copy size={15} aria-hidden /> Copy
    </Button>
  );
}
