import type { ButtonHTMLAttributes, Ref } from 'react';

type Look = 'main' | 'plain' | 'quiet' | 'danger';

const LOOKS: Record<Look, string> = {
  main: 'bg-pine text-on-pine border-pine hover:brightness-110',
  plain: 'bg-card text-ink border-line-strong hover:bg-sunk',
  quiet: 'bg-transparent text-pine border-transparent hover:bg-sunk',
  danger: 'bg-card text-rhubarb border-rhubarb hover:bg-rhubarb-soft',
};

export const buttonClass = (look: Look = 'plain', extra = ''): string =>
  `inline-flex items-center justify-center gap-1.5 rounded-md border px-3 min-h-8 font-medium no-underline whitespace-nowrap disabled:opacity-60 ${LOOKS[look]} ${extra}`;

/** A button; `type="button"` unless it says otherwise, so that none submits a form by accident. */
export function Button({
  look = 'plain',
  className = '',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: Look; ref?: Ref<HTMLButtonElement> }) {
  return <button type="button" className={buttonClass(look, className)} {...rest} />;
}

/** A small button that shows a sign; `label` says it in words. */
export function IconButton({ label, ...rest }: ButtonHTMLAttributes<HTMLButtonElement> & { label: string }) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className="grid place-items-center size-8 rounded-md hover:bg-sunk disabled:opacity-40"
      {...rest}
    />
  );
}
