import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { FullPaper } from '../../core/papers/paper';
import { paperOfDraft, type ItemDraft } from '../papers/drafts';
import { readFile, type ImportedFile } from '../papers/readFile';
import { sampleOf } from './samplePaper';

const FOLDER = path.resolve(import.meta.dirname, '../../demo/media/files');
const NAMES = ['briefing.mp3', 'collecting-rules.pdf', 'tray.webm', 'tray.vtt'];

/** What is said in the recording; in nobody's copy but those with transcripts. */
export const SPOKEN = 'Group three begins at the seed store.';

const item = (key: string, prompt: string): ItemDraft => {
  const { content, marks } = sampleOf('number');
  return {
    key,
    version: 1,
    title: key,
    source: null,
    parts: [{ key: 'A', kind: 'number', marks, minutes: null, prompt, content }],
  };
};

/** A paper with a recording of two plays and a document, and a film in a section with a limit of its own. */
export async function mediaPaper(): Promise<{ paper: FullPaper; files: readonly ImportedFile[] }> {
  const read = await Promise.all(
    NAMES.map(
      async (name) => [name, (await readFile(name, readFileSync(path.join(FOLDER, name))))!] as const,
    ),
  );
  const files = new Map(read);
  const paper = paperOfDraft(
    {
      key: 'media-paper',
      version: 1,
      title: 'With media',
      cover: '',
      minutes: 30,
      warningMinutes: [],
      sections: [
        {
          key: 'A',
          title: 'Free',
          introduction: '',
          minutes: null,
          handouts: [{ key: 'rules', title: 'Rules', body: '::pdf{file=collecting-rules.pdf title=Rules}' }],
          items: [{ key: 'heard', version: 1 }],
        },
        {
          key: 'B',
          title: 'Limited',
          introduction: '',
          minutes: 10,
          items: [{ key: 'seen', version: 1 }],
        },
      ],
      bands: [],
      showRightAnswers: false,
      rules: { version: '1', text: 'Work alone.', statements: [{ key: 'honest', text: 'I am honest.' }] },
      bank: [
        item('heard', `:::audio{file=briefing.mp3 title="Morning briefing" plays=2}\n${SPOKEN}\n:::`),
        item('seen', '::video{file=tray.webm captions=tray.vtt title=Tray description="A tray"}'),
      ],
    },
    (name) => files.get(name)?.facts ?? null,
  );
  return { paper, files: [...files.values()] };
}
