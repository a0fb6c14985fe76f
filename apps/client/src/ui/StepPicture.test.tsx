import { render } from '@testing-library/react-native';
import { StepPicture } from './StepPicture';

const widths = async (mark?: number) => {
  const { toJSON } = await render(<StepPicture name="six-lines" mark={mark} label="A line" />);
  return [...JSON.stringify(toJSON()).matchAll(/"strokeWidth":"?([\d.]+)"?/g)].map(([, width]) => Number(width));
};

test('the line that is meant stands out from the other five; without one all are alike', async () => {
  expect((await widths(3)).filter((width) => width === 8)).toHaveLength(1);
  expect((await widths(3)).filter((width) => width === 1)).toHaveLength(5);
  expect((await widths()).filter((width) => width === 2.5)).toHaveLength(6);
});
