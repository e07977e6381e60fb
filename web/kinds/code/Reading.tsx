import { readableProgram } from '../../../core/kinds/code/program';
import type { CodeResponse, CodeShown } from '../../../core/kinds/code/response';
import { AnnotatedLines } from '../../annotations/AnnotatedLines';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { languageNames } from '../../../core/programs/languages';

const t = words('codeReading', { nothing: 'No program was written.' });

export function Reading({ shown, response }: ReadingProps<CodeShown, CodeResponse>) {
  const program = readableProgram(shown, response);
  if (program === '') return <p className="text-soft">{t('nothing')}</p>;
  return (
    <figure>
      <figcaption className="mb-1 px-1.5 text-[0.85em] text-soft">
        {languageNames[response.language]}
      </figcaption>
      <AnnotatedLines program={program} />
    </figure>
  );
}
