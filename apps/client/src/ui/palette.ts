/** The colours of one theme. Signals always come with their shape and word, never alone. */
export interface Palette {
  dark: boolean;
  paper: string;
  /** Fields and bars that stand off from the paper. */
  raised: string;
  ink: string;
  steel: string;
  hairline: string;
  /** Edges of things that can be touched: 3:1 on paper. */
  edge: string;
  accent: string;
  onAccent: string;
  ready: string;
  due: string;
  stop: string;
  hold: string;
  stopWash: string;
  dueWash: string;
  /** Ends and middle of the height tints. */
  high: string;
  middle: string;
  low: string;
}

export const LIGHT: Palette = {
  dark: false,
  paper: '#F6F3EA',
  raised: '#FFFEFA',
  ink: '#1E2A2F',
  steel: '#566469',
  hairline: '#D9D3C3',
  edge: '#7C8A8F',
  accent: '#23468C',
  onAccent: '#FFFFFF',
  ready: '#45703F',
  due: '#8A5F0D',
  stop: '#A63F24',
  hold: '#5B4A8A',
  stopWash: '#F5E3DC',
  dueWash: '#F4EAD2',
  high: '#D08567',
  middle: '#E9E2D1',
  low: '#8099C9',
};

export const DARK: Palette = {
  dark: true,
  paper: '#13191C',
  raised: '#1C2427',
  ink: '#ECE7DA',
  steel: '#A3B0B5',
  hairline: '#333E42',
  edge: '#718087',
  accent: '#9DB8EC',
  onAccent: '#10203F',
  ready: '#93C48B',
  due: '#E0B153',
  stop: '#EE937A',
  hold: '#B9A8E6',
  stopWash: '#3A211A',
  dueWash: '#362B14',
  high: '#9A4A32',
  middle: '#3B3F3C',
  low: '#3F5E9E',
};
