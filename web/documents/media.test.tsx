import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { AudioNode, Block, ChartNode, Inline } from '../../core/documents/document';
import { previewFiles } from '../media/fileSource';
import { Recordings, RecordingsOf } from '../media/recordings';
import { TrialPlays } from '../media/plays';
import { faultsOf } from '../testing/faultsOf';
import { DocumentView } from './DocumentView';
import { loadNodes } from './lazyNodes';

const draw = (...blocks: Block[]) => <DocumentView document={{ format: 1, blocks }} />;
const cell = (text: string): Inline[] => [{ type: 'text', text }];

const chart: ChartNode = {
  type: 'chart',
  chart: 'line',
  title: 'Three lots',
  description: 'S-1 rises to 70.',
  across: 'Day',
  up: '%',
  table: {
    type: 'table',
    align: [null, 'right'],
    head: [cell('Day'), cell('S-1')],
    rows: [
      [cell('7'), cell('48')],
      [cell('14'), cell('70')],
    ],
  },
};

describe('a chart', () => {
  it('is heard by its description, and its table is one press away and back', async () => {
    await loadNodes(['chart']);
    const { container } = render(draw(chart));
    expect(screen.getByRole('img', { name: 'Three lots. S-1 rises to 70.' })).toBeInTheDocument();
    expect(screen.queryByRole('table')).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Show as a table' }));
    const rows = screen.getAllByRole('row').map((row) => row.textContent);
    expect(rows).toEqual(['DayS-1', '748', '1470']);
    expect(await faultsOf(container)).toEqual([]);
    await userEvent.keyboard('{Enter}');
    expect(screen.getByRole('img', { name: /Three lots/ })).toBeInTheDocument();
  });
});

const audio: AudioNode = {
  type: 'audio',
  file: 'f',
  title: 'Morning briefing',
  seconds: 72,
  plays: 2,
  pausing: false,
  transcript: null,
};

describe('a recording', () => {
  let plays: TrialPlays;
  let recordings: Recordings;
  beforeEach(async () => {
    await loadNodes(['audio']);
    plays = new TrialPlays();
    recordings = new Recordings(previewFiles({ f: 'blob:f' }), plays);
  });
  const show = (node: AudioNode) => render(<RecordingsOf value={recordings}>{draw(node)}</RecordingsOf>);

  it('lets nobody use a play before they have heard the tone, and says in words what is left', async () => {
    const [tone, start] = [
      vi.spyOn(recordings, 'testSound').mockReturnValue(),
      vi.spyOn(recordings, 'start'),
    ];
    start.mockResolvedValue();
    const { container } = show(audio);
    const player = within(screen.getByRole('region', { name: 'Recording: Morning briefing' }));
    expect(player.getByRole('status')).toHaveTextContent(
      'You can play it two more times (limit: two), 1 min 12 sYou cannot pause it or play a part of it again.',
    );
    expect(player.queryByRole('button', { name: /^Play –/ })).toBeNull();
    await userEvent.click(player.getByRole('button', { name: 'Play a test tone' }));
    await userEvent.click(player.getByRole('button', { name: 'I hear the tone' }));
    await userEvent.click(player.getByRole('button', { name: 'Play – counts as one time' }));
    expect([tone, start].map((spy) => spy.mock.calls.length)).toEqual([1, 1]);
    expect(player.getByRole('slider', { name: 'Volume' })).toHaveValue('0.8');
    expect(player.getByRole('progressbar')).toHaveAttribute('aria-valuetext', '0:00 of 1:12');
    expect(await faultsOf(container)).toEqual([]);
  });

  it('tells of a play that broke off, and that none is left', async () => {
    await plays.use('f');
    await plays.use('f');
    plays.finish('f', false);
    show(audio);
    expect(screen.getByRole('status')).toHaveTextContent('You have played it two times, which is the limit');
    expect(screen.getByRole('alert')).toHaveTextContent('the invigilator can let you play it again');
    expect(screen.getByRole('button', { name: /^Play/ })).toBeDisabled();
  });

  it('says that the next play waits for a connection', async () => {
    recordings.heardTest();
    vi.spyOn(plays, 'stateOf').mockReturnValue({
      allowed: 2,
      left: 1,
      ready: false,
      elsewhere: 0,
      broken: false,
    });
    show(audio);
    expect(screen.getByRole('status')).toHaveTextContent('You can play it one more time (limit: two)');
    expect(screen.getByRole('alert')).toHaveTextContent('You need a connection to play it again');
    await userEvent.click(screen.getByRole('button', { name: /^Play/ }));
    expect(recordings.store.getState().sounding).toBeNull();
  });

  it('that may be heard as often as one likes can be wound', () => {
    show({ ...audio, plays: null, pausing: true });
    expect(screen.getByRole('status')).toHaveTextContent('You can play it as often as you like, 1 min 12 s');
    expect(screen.getByRole('slider', { name: 'Position in Morning briefing' })).toBeDisabled();
    expect(screen.getByRole('button', { name: 'Play' })).toBeEnabled();
  });
});

it('shows a transcript in the place of a recording', () => {
  const blocks: Block[] = [{ type: 'paragraph', children: cell('Good morning.') }];
  render(draw({ type: 'transcript', title: 'Briefing', blocks }));
  const region = screen.getByRole('region', { name: 'Transcript of “Briefing”' });
  expect(region).toHaveTextContent('Good morning.');
});
