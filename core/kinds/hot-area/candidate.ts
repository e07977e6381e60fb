import { message } from '../../messages/message';
import { plainCandidate, type CandidateKind, type Progress } from '../contract';
import { hasTwice, keysOf, knownOnce, textOf } from '../shared/entries';
import { sizeOf, type HotAreaResponse, type HotAreaShown } from './response';
import { holds } from './shapes';

function progress({ mode, limit }: HotAreaShown, response: HotAreaResponse): Progress {
  const count = limit - sizeOf(response);
  if (count === limit) return { state: 'empty', missing: message(`hot-area.${mode}`, { count }) };
  if (count > 0) return { state: 'part', missing: message(`hot-area.${mode}More`, { count }) };
  return { state: 'done', missing: null };
}

function misfit({ mode, areas, limit }: HotAreaShown, response: HotAreaResponse) {
  const { chosen, marks } = response;
  const other = mode === 'choose' ? marks : chosen;
  const known = chosen.every((key) => areas.some((area) => area.key === key));
  if (other.length > 0 || !known) return message('hot-area.unknown');
  if (hasTwice(chosen)) return message('hot-area.twice');
  return sizeOf(response) > limit ? message('hot-area.tooMany', { count: limit }) : null;
}

export const hotArea: CandidateKind<HotAreaShown, HotAreaResponse> = {
  ...plainCandidate,
  name: 'hot-area',
  empty: () => ({ chosen: [], marks: [] }),
  misfit,
  fitting: ({ mode, areas }, { chosen, marks }) =>
    mode === 'choose'
      ? { chosen: knownOnce(chosen, keysOf(areas)), marks: [] }
      : { chosen: [], marks: [...marks] },
  progress,
  rule: () => message('hot-area.rule'),
  describe: ({ areas }, { chosen, marks }, say) => ({
    form: 'words',
    text: [
      ...chosen.map((key) => textOf(areas, key)),
      ...marks.map(({ x, y }) => {
        const area = areas.find(({ shape }) => holds(shape, { x, y }));
        const at = { across: Math.round(x / 10), down: Math.round(y / 10) };
        return say(
          area ? message('hot-area.markIn', { ...at, text: area.text }) : message('hot-area.markAt', at),
        );
      }),
    ].join('; '),
  }),
};
