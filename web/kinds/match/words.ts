import { words } from '../../words';

export const t = words('matchAnswer', {
  how: 'Press an entry on the left, then its partner on the right.',
  left: 'Left',
  right: 'Right',
  take: '{{text}}',
  joined: 'joined to {{partner}}',
  open: 'no partner yet',
  remove: 'Take the line of “{{text}}” away',
  pairs: 'Pairs',
  pair: '{{text}} – {{partner}}',
  taken: '“{{text}}” is taken up. Choose its partner: arrow keys and Enter, or press it. Escape lets it go.',
  over: 'over “{{partner}}”, {{place}} of {{all}}',
  put: '“{{text}}” is joined to “{{partner}}”.',
  removed: 'The line of “{{text}}” is taken away.',
  letGo: '“{{text}}” is let go.',
  first: 'Press an entry on the left first.',
  used: '“{{partner}}” has a partner already; it is joined to “{{text}}” now instead.',
});
