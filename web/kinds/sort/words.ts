import { words } from '../../words';

export const t = words('sortAnswer', {
  how: 'Press an entry, then the place where it belongs. Or drag it.',
  howSource: 'Press a marked phrase in the source or an entry here, then the place where it belongs.',
  chips: 'Entries',
  none: 'All entries are placed.',
  take: 'Take “{{text}}”',
  takeFrom: '“{{text}}” in {{bin}}: take it up again',
  drag: 'Drag “{{text}}”',
  remove: 'Take “{{text}}” out of {{bin}}',
  putHere: 'Put here',
  putInto: 'Put “{{text}}” into {{bin}}',
  held: 'Selected: {{text}}',
  letGoButton: 'Let go',
  of: '{{inside}} of {{limit}}',
  room: '{{inside}} of {{limit}} are in it.',
  empty: 'empty',
  taken:
    '“{{text}}” is selected. Choose its place with the arrow keys and Enter, or press the place. Press Esc to cancel.',
  over: '“{{text}}”: over {{bin}}, place {{place}} of {{all}}.',
  put: '“{{text}}” is put into {{bin}}.',
  removed: '“{{text}}” is taken out.',
  letGo: '“{{text}}” is let go.',
  full_one: '“{{text}}” holds {{count}} only. Take it out first.',
  full_other: '“{{text}}” holds {{count}}. Take one out first.',
});
