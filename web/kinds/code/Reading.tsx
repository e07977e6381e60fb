import type { CodeResponse, CodeShown } from '../../../core/kinds/code/response';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { languageNames } from './languageNames';

const t = words('codeReading', { nothing: 'No program was written.' });

export function Reading({ response }: ReadingProps<CodeShown, CodeResponse>) {
  const program = response.programs[response.language];
  if (!program) return <p className="text-soft">{t('nothing')}</p>;
  return (
    <figure>
      <figcaption className="mb-1 text-[0.85em] text-soft">{languageNames[response.language]}</figcaption>
      <pre
        tabIndex={0}
        className="overflow-x-auto rounded-control border border-line bg-paper p-3 font-mono text-[0.85em]"
      >
        {program}
      </pre>
    </figure>
  );
}
