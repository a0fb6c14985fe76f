/** How blanks are cut: sawn, or scored and snapped. */
export type CutMethod = 'saw' | 'snap';

/** What to mind when blanks are cut, as it stands on the screen and on the printed layout. Common practice. */
export const blankCaution = (method: CutMethod): { title: string; text: string } =>
  method === 'saw'
    ? {
        title: 'Saw and dust',
        text: 'Cut away from fingers. Fibreglass and its dust: outdoors or with extraction, a fitted respirator, wet where possible.',
      }
    : {
        title: 'Glass splinters',
        text: 'Eye protection and gloves, oil on the wheel, never score the same line twice. Round the edges before it is handled.',
      };
