import { words } from '../../words';

export const t = words('matchAnswer', {
  how: 'Press an entry on the left, then its partner on the right. Or drag one to the other.',
  left: 'Left',
  right: 'Right',
  take: '{{text}}',
  joined: 'joined to {{partner}}',
  open: 'no partner yet',
  remove: 'Remove the line of “{{text}}”',
  pairs: 'Pairs',
  pair: '{{text}} – {{partner}}',
  taken:
    '“{{text}}” is selected. Choose its partner with the arrow keys and Enter, or press the partner. Press Esc to cancel.',
  over: 'over “{{partner}}”, {{place}} of {{all}}',
  put: '“{{text}}” is joined to “{{partner}}”.',
  removed: 'The line of “{{text}}” is removed.',
  letGo: '“{{text}}” is no longer selected.',
  first: 'Press an entry on the left first.',
  used: '“{{partner}}” had another partner. It is now joined to “{{text}}”.',
});
