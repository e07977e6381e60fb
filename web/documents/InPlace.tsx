import type { Document } from '../../core/documents/document';
import { Scroller } from '../ui/Scroller';
import { Fills } from '../media/fills';
import { DocumentView, type TextName } from './DocumentView';

interface Props {
  readonly body: Document;
  /** What highlights in it are kept under. */
  readonly text?: TextName;
  /** Of what scrolls. */
  readonly className: string;
}

/** A text that scrolls in its place. A PDF document alone in it scrolls by itself instead: nothing scrolls in two ways. */
export function InPlace({ body, text, className }: Props) {
  const [only, more] = body.blocks;
  if (only?.type === 'pdf' && !more)
    return (
      <Fills value>
        <div data-fills className="h-full min-h-0 flex-1 pt-2">
          <DocumentView document={body} className="h-full" />
        </div>
      </Fills>
    );
  return (
    <Scroller tabIndex={0} className="min-h-0 flex-1 outline-offset-[-3px]" inside={className}>
      <DocumentView document={body} text={text} className="max-w-[70ch]" />
    </Scroller>
  );
}
