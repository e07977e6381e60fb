import { useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { ImportIssue, ImportReport } from '../../core/papers/importApi';
import { postBytes } from '../api/client';
import '../staff/importWords';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { StaffPage } from '../ui/StaffPage';
import { useAction } from '../ui/useAsync';
import { say } from '../words';
import { previewFiles } from '../media/fileSource';
import { AdaptiveSectionView } from './AdaptiveSectionView';
import { loadAnswers, PaperView } from './PaperView';
import { t } from './words';

function Issues({ issues }: { readonly issues: readonly ImportIssue[] }) {
  if (issues.length === 0)
    return (
      <div className="mb-4">
        <Notice tone="plain">{t('fine')}</Notice>
      </div>
    );
  const severe = issues.filter((one) => one.severity === 'severe');
  return (
    <section className="mb-4">
      <h2 className="mb-2 font-semibold">
        {severe.length > 0 ? t('problems', { count: severe.length }) : t('advice', { count: issues.length })}
      </h2>
      <table className="w-full rounded-card border border-line bg-card">
        <thead>
          <tr className="border-b border-line text-left text-[0.85rem] text-soft">
            <th scope="col" className="px-3 py-2">
              {t('place')}
            </th>
            <th scope="col" className="px-3 py-2">
              {t('says')}
            </th>
          </tr>
        </thead>
        <tbody>
          {issues.map(({ path, message }, i) => (
            <tr key={i} className="border-b border-line/70 last:border-0">
              <td className="px-3 py-2 align-top font-mono text-[0.85rem]">{path}</td>
              <td className="px-3 py-2">{say(message)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

interface Checked {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly report: ImportReport;
}

/** A paper from a file: checked, shown, and published by a press of its own. */
export function ImportPaper() {
  const [checked, setChecked] = useState<Checked | null>(null);
  const { busy, trouble, run } = useAction();
  const client = useQueryClient();
  const navigate = useNavigate();
  const check = (file: File) =>
    run(async () => {
      setChecked(null);
      const bytes = new Uint8Array(await file.arrayBuffer());
      const report = await postBytes<ImportReport>('/papers/import/check', bytes);
      if (report.preview) await loadAnswers(report.preview);
      setChecked({ bytes, report });
    });
  const publish = () =>
    run(async () => {
      const { published } = await postBytes<ImportReport>('/papers/import/publish', checked!.bytes);
      await client.invalidateQueries({ queryKey: ['/papers'] });
      if (published !== null) await navigate(`/staff/papers/${published}`);
    });
  const report = checked?.report;
  const files = useMemo(() => previewFiles(report?.media ?? {}), [report]);
  return (
    <StaffPage
      title={t('importTitle')}
      aside={
        report?.preview && (
          <Button look="first" disabled={busy} onClick={() => void publish()}>
            {t('publish')}
          </Button>
        )
      }
    >
      <p className="max-w-[70ch]">{t('importText')}</p>
      <p className="mb-4 flex gap-5 text-[0.92rem]">
        <a href="/paper-example.json" download className="text-slate underline underline-offset-4">
          {t('importExample')}
        </a>
        <a href="/paper-schema.json" download className="text-slate underline underline-offset-4">
          {t('importSchema')}
        </a>
      </p>
      <label className="mb-4 block max-w-[30rem]">
        {t('file')}
        <input
          type="file"
          accept=".json,.zip,application/json,application/zip"
          className="mt-1 block w-full rounded-control border border-edge bg-card px-3 py-2"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) void check(file);
            // The same file, mended, can be chosen again.
            event.target.value = '';
          }}
        />
      </label>
      {busy && !report && <p className="text-soft">{t('checking')}</p>}
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      {report && <Issues issues={report.issues} />}
      {report?.preview && (
        <>
          <p className="mb-4">
            {report.changed.length === 0
              ? t('unchanged')
              : t('changed', { count: report.changed.length, titles: report.changed.join(', ') })}
          </p>
          {report.adaptive.map((section) => (
            <AdaptiveSectionView key={section.key} section={section} />
          ))}
          <h2 className="mb-2 font-serif text-[1.25rem] font-semibold">{t('preview')}</h2>
          <PaperView paper={report.preview} files={files} />
        </>
      )}
    </StaffPage>
  );
}
