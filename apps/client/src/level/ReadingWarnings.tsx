import type { ParsedHeights } from '@even-bed/core';
import { Notice } from '../ui/Notice';
import { Words } from '../ui/Words';

const MOST_WARNINGS = 4;

/** What a person should look at in the text, and what makes the heights doubtful. */
export function ReadingWarnings({ parsed, doubts }: { parsed: Pick<ParsedHeights, 'warnings'>; doubts: string[] }) {
  const shown = parsed.warnings.slice(0, MOST_WARNINGS);
  if (shown.length + doubts.length === 0) return null;
  return (
    <Notice kind="due" title="Look at this before you go on" testID="reading-warnings">
      {doubts.map((doubt) => (
        <Words key={doubt}>{doubt}</Words>
      ))}
      {shown.map(({ line, message }) => (
        <Words key={`${line} ${message}`} size="small">
          {line > 0 ? `Line ${line}: ${message}` : message}
        </Words>
      ))}
      {parsed.warnings.length > shown.length ? (
        <Words size="small">{`and ${parsed.warnings.length - shown.length} more lines`}</Words>
      ) : null}
    </Notice>
  );
}
