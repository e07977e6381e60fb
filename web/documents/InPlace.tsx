import type { Document } from '../../core/documents/document';
import { Fills } from '../media/fills';
import { DocumentView } from './DocumentView';

interface Props {
  readonly body: Document;
  /** Of what scrolls. */
  readonly className: string;
}

/** A text that scrolls in its place. A PDF document alone in it scrolls by itself instead: nothing scrolls in two ways. */
export function InPlace({ body, className }: Props) {
  const [only, more] = body.blocks;
  if (only?.type === 'pdf' && !more)
    return (
      <Fills value>
        <div className="h-full min-h-0 flex-1 pt-2">
          <DocumentView document={body} className="h-full" />
        </div>
      </Fills>
    );
  return (
    <div tabIndex={0} className={`min-h-0 flex-1 overflow-y-auto outline-offset-[-3px] ${className}`}>
      <DocumentView document={body} className="max-w-[70ch]" />
    </div>
  );
}
