import { useState } from 'react';
import type { CorrectionPage, WantedChange } from '../../core/corrections/api';
import { isKindName, type KindName } from '../../core/kinds/kindNames';
import type { Ruling } from '../../core/papers/ruling';
import { postBytes } from '../api/client';
import { hasKeyForm, keyForms } from '../kinds/keyForms';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { useReady } from '../ui/ComponentShelf';
import { CorrectionDialog } from './CorrectionDialog';
import { t } from './words';

interface Props {
  /** Of the part, under the API. */
  readonly path: string;
  readonly page: CorrectionPage;
  readonly onDone: () => void;
}

const keyChange = (key: unknown): WantedChange | null => (key === null ? null : { type: 'key', key });

function KeyForm({
  kind,
  page,
  onKey,
}: {
  readonly kind: KindName;
  readonly page: CorrectionPage;
  readonly onKey: (key: unknown) => void;
}) {
  const ready = useReady(keyForms, kind);
  return ready ? (
    keyForms.draw(kind, { content: page.content as never, onKey })
  ) : (
    <p className="text-soft">…</p>
  );
}

function ChangeKey({ path, page, onDone }: Props) {
  const [key, setKey] = useState<unknown>(null);
  if (!isKindName(page.kind) || !hasKeyForm(page.kind)) return null;
  return (
    <CorrectionDialog
      act={t('key')}
      title={t('keyTitle')}
      text={t('keyText')}
      path={path}
      change={keyChange(key)}
      form={<KeyForm kind={page.kind} page={page} onKey={setKey} />}
      onOpen={() => setKey(null)}
      onDone={onDone}
    />
  );
}

/** For every kind: the corrected question as its author has it. */
function BringKey({ path, onDone }: Props) {
  const [key, setKey] = useState<unknown>(null);
  const { busy, trouble, run } = useAction();
  const read = (file: File) =>
    run(async () => {
      setKey(null);
      const bytes = new Uint8Array(await file.arrayBuffer());
      setKey((await postBytes<{ readonly key: unknown }>(`${path}/file`, bytes)).key);
    });
  return (
    <CorrectionDialog
      act={t('keyFile')}
      title={t('keyFileTitle')}
      text={t('keyFileText')}
      path={path}
      change={keyChange(key)}
      form={
        <>
          <label className="block">
            {t('file')}
            <input
              type="file"
              accept=".json,.zip,application/json,application/zip"
              disabled={busy}
              className="mt-1 block w-full rounded-control border border-edge bg-card px-3 py-2"
              onChange={(event) => {
                const file = event.target.files?.[0];
                if (file) void read(file);
                // The same file, mended, can be chosen again.
                event.target.value = '';
              }}
            />
          </label>
          {key !== null && <p>{t('fileRead')}</p>}
          {trouble && <Notice tone="trouble">{trouble}</Notice>}
        </>
      }
      onOpen={() => setKey(null)}
      onDone={onDone}
    />
  );
}

const FOR_WHOM = ['marks for who answered', 'marks for all'] as const satisfies readonly Ruling[];

function FullMarks({ path, onDone }: Props) {
  const [ruling, setRuling] = useState<Ruling>('marks for who answered');
  return (
    <CorrectionDialog
      act={t('all')}
      title={t('allTitle')}
      text={t('allText')}
      path={path}
      change={{ type: 'ruling', ruling }}
      form={
        <fieldset>
          <legend className="font-semibold">{t('allFor')}</legend>
          {FOR_WHOM.map((one) => (
            <label key={one} className="flex min-h-9 items-center gap-2.5">
              <input type="radio" checked={ruling === one} onChange={() => setRuling(one)} />
              {t(one)}
            </label>
          ))}
        </fieldset>
      }
      onOpen={() => setRuling('marks for who answered')}
      onDone={onDone}
    />
  );
}

/** What can be corrected of a part. */
export function CorrectPart(props: Props) {
  const { path, page, onDone } = props;
  return (
    <section aria-label={t('correct')} className="rounded-card border border-line bg-card px-5 py-4">
      <h2 className="font-serif text-[1.2rem] font-semibold">{t('correct')}</h2>
      <p className="max-w-[75ch] pt-1 pb-3 text-soft">{t('correctText')}</p>
      <div className="flex flex-wrap gap-3">
        <ChangeKey {...props} />
        <BringKey {...props} />
        <CorrectionDialog
          act={t('withdraw')}
          title={t('withdrawTitle')}
          text={t(`withdrawText ${page.withdrawn}`)}
          path={path}
          change={{ type: 'ruling', ruling: 'withdrawn' }}
          onDone={onDone}
        />
        <FullMarks {...props} />
      </div>
    </section>
  );
}
