import type { FindingShape } from '@zesting/contract';
import { CircleAlert, CircleX } from 'lucide-react';
import { findingWords } from '../lib/finding-words';

/** What speaks against going out, a line each: what must be settled first, then what somebody decides. */
export function Findings({ findings, label }: { findings: readonly FindingShape[]; label: string }) {
  if (findings.length === 0) return null;
  return (
    <ul aria-label={label} className="text-[13px] leading-snug">
      {findings.map((found, index) => (
        <li
          key={index}
          className={`flex items-start gap-1.5 py-0.5 ${found.severity === 'must' ? 'text-rhubarb font-medium' : 'text-rind'}`}
        >
          {found.severity === 'must' ? (
            <CircleX size={14} aria-label="Must be settled:" className="shrink-0 mt-[2px]" />
          ) : (
            <CircleAlert size={14} aria-label="To be looked at:" className="shrink-0 mt-[2px]" />
          )}
          <span className="break-words min-w-0">{findingWords(found)}</span>
        </li>
      ))}
    </ul>
  );
}
