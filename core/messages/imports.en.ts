/** What is said of files that staff bring: papers and lists of people. */
export const messages = {
  empty: 'The file is empty.',
  notText: 'This file is not text in UTF-8. Save it as JSON in UTF-8 and try again.',
  notJson: 'This file is not JSON: {{problem}}',
  archive:
    'This ZIP cannot be unpacked, or it contains more than {{files}} files or {{megabytes}} MB. Remove files that the paper does not need.',
  onePaper: 'A ZIP must contain exactly one .json file; this one contains {{count}}.',
  fileBroken:
    'The file {{file}} cannot be read. Use JPEG, PNG or WebP for pictures, MP3, Ogg, WAV or M4A for recordings, WebM or MP4 for video, WebVTT for captions, or PDF.',
  unusedFile: 'The file {{file}} is not used in the paper.',
  sameItem: 'Two items have the key {{key}}.',
  noName: 'The name is missing.',
  noEmail: 'The e-mail address is missing.',
  badEmail: '“{{email}}” is not an e-mail address.',
  badReference:
    '“{{reference}}” is not a reference: use capital letters, digits and hyphens, 3 to 20 of them.',
  badExtra: '“{{extra}}” is not an extra time in per cent from 0 to 200.',
  badBreaks: '“{{breaks}}” is not a number of minutes from 0 to 120.',
  badZone: '“{{zone}}” is not a time zone. Use a name such as Europe/London.',
  twiceInFile: 'This e-mail address is already in line {{line}}.',
  referenceTaken: 'The reference {{reference}} belongs to another e-mail address.',
  addressKnown: 'This e-mail address belongs to the reference {{reference}}.',
  started: 'This person has already started: extra time and breaks do not change.',
  notInvited: 'This person is not invited any more. Check the list again.',
  noRows: 'The file has no rows.',
  tooManyColumns: 'The first row has more than {{most}} columns. Keep only the columns that are needed.',
  tooManyRows: 'The file has more than {{most}} rows. Divide it.',
  noColumn: 'Choose the column with the name and the column with the e-mail address.',
};
