import { Paperclip } from 'lucide-react';
import { useRef, useState } from 'react';
import type { StaffSheet } from '../../core/results/api';
import { post, postBytes } from '../api/client';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { words } from '../words';

const t = words('overallRemark', {
  title: 'Comment on the whole script',
  text: 'The candidate reads this comment at the top of the result. Leave it empty for no comment.',
  save: 'Save the comment',
  attach: 'Add a picture or PDF',
  replace: 'Replace the file',
  takeAway: 'Remove the file',
  attached: 'A file goes with this comment. The candidate can open it.',
  help: 'JPEG, PNG, WebP or PDF, at most 12 MB and 20 pages. The name of the file is not kept. A PDF document can name its author: the candidate gets it as it is.',
});

const TYPES = 'image/jpeg,image/png,image/webp,application/pdf';

interface Props {
  readonly data: StaffSheet;
  readonly round: string;
  readonly onDone: () => void;
}

/** What the sheet says of the script as a whole, and a file that goes with it. */
export function OverallRemark({ data, round, onDone }: Props) {
  const [text, setText] = useState(data.sheet.comment ?? '');
  const { busy, trouble, run } = useAction();
  const chooser = useRef<HTMLInputElement>(null);
  const path = `/marking/rounds/${round}/overall-comments`;
  const act = (work: () => Promise<unknown>) =>
    run(async () => {
      await work();
      onDone();
    });
  const attach = (file: File | undefined) => {
    // Chosen once more, the same file is sent again.
    if (chooser.current) chooser.current.value = '';
    if (file)
      void act(async () =>
        postBytes(`${path}/${data.script}/file`, new Uint8Array(await file.arrayBuffer())),
      );
  };
  const { file } = data.sheet;
  return (
    <details className="mb-4 rounded-card border border-line bg-card px-5 py-3">
      <summary className="font-semibold">{t('title')}</summary>
      <label className="mt-1 block text-soft">
        {t('text')}
        <textarea
          rows={3}
          value={text}
          maxLength={4000}
          onChange={(event) => setText(event.target.value)}
          className="mt-1 block w-full rounded-control border border-edge bg-card px-3 py-2 text-ink"
        />
      </label>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <Button
          disabled={busy || text.trim() === (data.sheet.comment ?? '')}
          onClick={() => void act(() => post(path, { script: data.script, text: text.trim() }))}
        >
          {t('save')}
        </Button>
        <Button disabled={busy} onClick={() => chooser.current?.click()}>
          <Paperclip aria-hidden className="size-4" /> {t(file ? 'replace' : 'attach')}
        </Button>
        <input
          ref={chooser}
          type="file"
          accept={TYPES}
          aria-label={t(file ? 'replace' : 'attach')}
          onChange={(event) => attach(event.target.files?.[0])}
          className="sr-only"
          tabIndex={-1}
        />
        {file && (
          <Button
            look="quiet"
            disabled={busy}
            onClick={() => void act(() => post(`${path}/${data.script}/no-file`, {}))}
          >
            {t('takeAway')}
          </Button>
        )}
      </div>
      <p className="mt-2 text-[0.85rem] text-soft">{t(file ? 'attached' : 'help')}</p>
    </details>
  );
}
