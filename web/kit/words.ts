import { words } from '../words';

export const t = words('kit', {
  kit: 'Kit',
  kitRest: 'More aids',
  close: 'Close: {{title}}',
  move: 'Move with the arrow keys; with Shift they change the size.',
  'reading-slot': 'Reading slot',
  lens: 'Lens',
  highlight: 'Highlight',
  'rough-work': 'Rough work',
  calculator: 'Calculator',
  ruler: 'Ruler',
  protractor: 'Protractor',
  'read-aloud': 'Read aloud',
  keys: 'Keys',
});
