import type { OptionShown } from '../../../core/kinds/choice/response';
import { DocumentView } from '../../documents/DocumentView';
import { useFile } from '../../media/fileSource';

/** A picture as an option: pressed, it chooses, so that nothing in it can be pressed for itself. */
function OptionPicture({ file }: { readonly file: string }) {
  const found = useFile(file);
  return found.is === 'here' ? (
    <img src={found.address} alt="" className="max-h-56 max-w-full rounded-control" />
  ) : null;
}

/** An option as it is shown: its words, or what is shown for them while the words are heard. */
export function OptionBody({ option: { text, body } }: { readonly option: OptionShown }) {
  const [only, more] = body?.blocks ?? [];
  if (!body || !only) return text;
  return (
    <>
      <span className="sr-only">{text}</span>
      <span aria-hidden className="block min-w-0">
        {only.type === 'picture' && !more ? (
          <OptionPicture file={only.file} />
        ) : (
          <DocumentView document={body} />
        )}
      </span>
    </>
  );
}
