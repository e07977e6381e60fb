declare module 'pdfmake/fonts/Roboto.js' {
  import type { TFontDictionary } from 'pdfmake/interfaces';
  const fonts: TFontDictionary;
  export default fonts;
}
