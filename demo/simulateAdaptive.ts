/*
 * Prints what 2,000 simulated candidates would get in the adaptive sections of a paper: of a file in the format of
 * imports, or without one of the demo's reading paper. `npm run simulate-adaptive -- paper.json`
 */
import { readFileSync } from 'node:fs';
import { groupsFrom, simulationReport } from '../core/adaptive/report';
import { adaptiveViews, type AdaptiveView } from '../core/papers/adaptiveApi';
import type { FullPaper } from '../core/papers/paper';
import { paperFromDraft } from '../server/papers/drafts';
import { draftOfFile } from '../server/papers/importedDraft';
import { readingPaper } from './readingPaper';

function paperOfFile(path: string): FullPaper {
  const made = paperFromDraft(
    draftOfFile(
      JSON.parse(readFileSync(path, 'utf8')),
      () => 1,
      () => 1,
    ),
  );
  if ('paper' in made) return made.paper;
  const issues = made.issues.map((issue) => `  ${issue.path.join('.')}: ${issue.message.code}`);
  throw new Error(
    `${path} has problems; the page “Import a paper” tells them in words:\n${issues.join('\n')}`,
  );
}

const figure = (value: number): string => value.toFixed(3);
const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;

function printed(view: AdaptiveView): string {
  const { figures, groups } = simulationReport(view);
  const rows = [
    ['Candidates, abilities evenly from -2 to 2', String(figures.candidates)],
    ['Bias', figure(figures.bias)],
    ['RMSE', figure(figures.rmse)],
    ['Target error', figure(view.rules.targetError)],
    ['Mean standard error', figure(figures.meanError)],
    ['Questions, mean', figures.meanLength.toFixed(1)],
    ['Questions, most', String(figures.longest)],
    ['Asked most often', percent(figures.mostExposed)],
    ['Exposure limit', percent(view.rules.exposureLimit)],
    ['Exposure limit given up, of all steps', percent(figures.exposureRelaxed)],
    ['Topic shares given up, of all steps', percent(figures.topicsRelaxed)],
  ] as const;
  const table = rows.map(([name, value]) => `  ${name.padEnd(42)} ${value.padStart(8)}`);
  const byGroup = groups.map(({ bias, rmse, meanLength }, i) => {
    const from = groupsFrom[i]!;
    const title = `Abilities ${from} to ${from + 1}`;
    return `  ${title.padEnd(20)} bias ${figure(bias).padStart(7)}  RMSE ${figure(rmse)}  questions ${meanLength.toFixed(1)}`;
  });
  return [`${view.key} ${view.title}, ${view.questions} questions in the pool`, ...table, ...byGroup].join(
    '\n',
  );
}

const [file] = process.argv.slice(2);
const views = adaptiveViews(file ? paperOfFile(file) : readingPaper());
if (views.length === 0) console.log('This paper has no adaptive section.');
for (const view of views) console.log(`\n${printed(view)}`);
