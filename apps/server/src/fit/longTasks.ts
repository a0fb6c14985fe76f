import path from 'node:path';
import { toolSentence } from '@even-bed/core';
import { heavyTask } from '../kernel/heavy';
import type { blanksPdf } from './blanksPdf';

/** What a plan says, where its sum takes long. */
export const sentenceTask = ([tool, input]: [tool: Parameters<typeof toolSentence>[0], input: never]) =>
  toolSentence(tool, input);
export const SENTENCE = heavyTask<typeof sentenceTask>(path.join(__dirname, 'longTasks'), 'sentenceTask');
export const BLANKS_PDF = heavyTask<typeof blanksPdf>(path.join(__dirname, 'blanksPdf'), 'blanksPdf');
