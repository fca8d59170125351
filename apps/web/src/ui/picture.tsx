import { useEffect, useState, type ComponentProps } from 'react';

/** After these many milliseconds each, a picture that did not come is asked for again: its sizes may still be in the making. */
const AGAIN_MS = [1_000, 2_000, 4_000, 8_000, 16_000];

/** A picture of ours, which is asked for again when it does not come at once. */
export function Picture({ alt, ...props }: ComponentProps<'img'> & { alt: string }) {
  const [tries, setTries] = useState(0);
  const [failed, setFailed] = useState(false);
  const delay = failed ? AGAIN_MS[tries] : undefined;
  useEffect(() => {
    if (delay === undefined) return;
    const timer = setTimeout(() => {
      setFailed(false);
      setTries((before) => before + 1);
    }, delay);
    return () => clearTimeout(timer);
  }, [delay]);
  // the key makes the browser ask anew
  return <img key={tries} alt={alt} onError={() => setFailed(true)} {...props} />;
}
