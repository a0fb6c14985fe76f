import path from 'node:path';
import { toolAnswer, type ToolId, type ToolInputs } from '@even-bed/core';
import { heavyTask } from '../kernel/heavy';
import type { blanksPdf } from './blanksPdf';

/** What a tool answers, where its sum takes long. */
export const answerTask = ([tool, input]: [tool: ToolId, input: ToolInputs[ToolId]]) => toolAnswer(tool, input);
export const ANSWER = heavyTask<typeof answerTask>(path.join(__dirname, 'longTasks'), 'answerTask');
export const BLANKS_PDF = heavyTask<typeof blanksPdf>(path.join(__dirname, 'blanksPdf'), 'blanksPdf');
