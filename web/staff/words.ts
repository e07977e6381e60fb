import { messages } from '../../core/messages/lists.en';
import { words } from '../words';

words('list', messages);

export const t = words('table', {
  search: 'Search',
  show: 'Show',
  all: 'All',
  columns: 'Columns',
  exportAs: 'Export',
  csv: 'CSV file',
  xlsx: 'Excel workbook',
  count_one: '{{count}} row',
  count_other: '{{count}} rows',
  nothingFound: 'No rows match this search. Change it, or show all.',
  showAll: 'Show all',
  loading: 'Loading …',
  more: 'Loading more …',
  palette: 'Search (Ctrl K)',
  paletteTitle: 'Go to a page, a round or a person',
  paletteNothing: 'Nothing found.',
  pages: 'Pages',
  rounds: 'Rounds',
  people: 'People',
  papers: 'Papers',
  actions: 'Actions',
});
