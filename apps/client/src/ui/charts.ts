// The charts in one piece, fetched when the first is drawn.
export { default as HeatChart } from './HeatChart';
export { default as RangeTrend } from './RangeTrend';
