import type { CareEvents, FitEvents, WearEvents } from '@even-bed/contract';
import { INSPECTION_CARDS } from '@even-bed/core/care/inspectionCards';
import { placesInWords } from '@even-bed/core/wear/platePlaces';
import { FAILURE_WORDS, RELEASE_WORDS } from '@even-bed/core/wear/printWords';
import { counted, type Figures } from './figures';
import { mountAskWords } from './mount';
import type { Sentences } from './sentence';
import { toolSentence } from './tool';

const noted = (note: string) => (note ? ` ${note}` : '');

/** A number of an inspection with its unit. */
function measured(value: number, unit: string, { size, temperature, short }: Figures): string {
  if (unit === 'mm') return size(value, 3);
  if (unit === '°C') return temperature(value);
  return `${short(value, 6)} ${unit}`.trimEnd();
}

function seen(
  { card: cardId, code, numbers, note }: CareEvents['inspected'],
  subject: string,
  figures: Figures,
): string {
  const card = INSPECTION_CARDS.find(({ id }) => id === cardId);
  const label = card?.codes.find((known) => known.code === code)?.label ?? code;
  const said = (card?.numbers ?? []).flatMap(({ name, label: what, unit }) =>
    numbers[name] === undefined ? [] : `${what.toLowerCase()} ${measured(numbers[name], unit, figures)}`,
  );
  return `${subject}: ${(card?.title ?? cardId).toLowerCase()}: ${[label, ...said].join(', ')}.${noted(note)}`;
}

export const careSentences: Sentences<CareEvents> = {
  inspected: (payload, { subject, figures }) => seen(payload, subject, figures),
  'photo-added': ({ note }, { subject }) => `${subject}: photo added.${noted(note)}`,
  'job-started': ({ title, schools }, { machine }) =>
    `${machine}: ${title}, begun.${schools.length > 0 ? ` ${schools.join('; ')}.` : ''}`,
  'job-step': ({ said }, { machine, reader }) => {
    switch (said.code) {
      case 'line':
        return `${machine}: ${said.text}`;
      case 'used':
        return `${machine}: Used: ${said.used.join(', ')}.`;
      case 'not-asked':
        return `${machine}: ${said.tag} was put on without being asked: ${said.asks.map((ask) => mountAskWords(ask, reader)).join(' ')}`;
      case 'not-possible':
        return `${machine}: ${said.title} could not write this down: ${said.why}`;
    }
  },
  'job-handed-over': ({ title, toName, note }, { machine }) =>
    `${machine}: ${title}, handed over to ${toName}.${noted(note)}`,
  'job-ended': ({ title, ended, note }, { machine }) =>
    `${machine}: ${title}, ${ended === 'done' ? 'done' : `stopped${note ? `: ${note}` : ''}`}.`,
  'procedure-saved': ({ title, version }) => `The job “${title}” was saved as version ${version}.`,
};

const heldInWords = ({ held, failure }: Pick<WearEvents['print-logged'], 'held' | 'failure'>) =>
  held ? 'held' : `failed${failure ? `, ${FAILURE_WORDS[failure]}` : ''}`;

export const wearSentences: Sentences<WearEvents> = {
  'print-logged': ({ material, ...print }, { machine, surface }) =>
    `${machine}: print ${heldInWords(print)}${surface ? ` on ${surface}` : ''}${material ? `, ${material}` : ''}.`,
  'print-described': ({ held, now }, { machine, surface }) => {
    const said = [placesInWords(now.places), now.release && RELEASE_WORDS[now.release]].filter(Boolean);
    return `${machine}: the print that ${heldInWords({ held, failure: now.failure })}${surface ? ` on ${surface}` : ''}: ${[...said, now.note].filter(Boolean).join('; ') || 'nothing more'}.`;
  },
  'print-withdrawn': (print, { machine }) =>
    `${machine}: a print that ${heldInWords(print)} was written down by mistake and is withdrawn.`,
  'prints-added': ({ count, failed, list, machines }) =>
    `${counted(count, 'print', 'prints')} added from ${list ?? 'the grid'}: ${machines.slice(0, 4).join(', ')}${machines.length > 4 ? ' and others' : ''}; ${failed === 0 ? 'all held' : `${failed} failed`}.`,
};

export const fitSentences: Sentences<FitEvents> = {
  'plan-kept': (said, { machine, reader }) =>
    `${machine}, planned: ${said.title}. ${'answer' in said ? toolSentence(said.tool, said.answer, reader) : said.sentence}`,
  'plan-withdrawn': ({ title }, { machine }) => `${machine}: the plan ${title} is let go.`,
};
