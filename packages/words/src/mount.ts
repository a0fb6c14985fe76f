import type { MountAsk, MountCaution, MountRefusal } from '@even-bed/core';
import { groupFacts } from '@even-bed/core/surfaces/groups';
import { figuresFor, type Reader } from './figures';

/** Why a surface can't be put on a machine, and what would help. */
export function mountRefusalWords(refusal: MountRefusal): string {
  switch (refusal.code) {
    case 'retired':
      return `${refusal.tag} is retired: ${refusal.why}.`;
    case 'on-hold':
      return `${refusal.tag} is on hold (${refusal.reason || refusal.hold}). Wait, or cut the hold short with a reason.`;
    case 'family':
      return `${refusal.machine} is a ${refusal.family} printer: a ${groupFacts(refusal.group).one} has no place on it.`;
    case 'poles':
      return refusal.partnerTurned
        ? `${refusal.partner} lies a quarter turn round, and both have their poles in lines: they would cross and the sheet lie in ridges. Lay ${refusal.partner} with its mark to the front, or turn ${refusal.tag} with it.`
        : `${refusal.tag} and ${refusal.partner} have their poles in lines. Turned a quarter, the lines cross and the sheet lies in ridges. Lay its front mark to the front.`;
    case 'glass-on-mat':
      return `Glass straight on the magnetic mat ${refusal.mat} bonds to it after a few hot prints and can’t be lifted. Take the mat off first.`;
    case 'here':
      return `${refusal.tag} lies on ${refusal.machine} already.`;
  }
}

/** What has to be looked at before a surface is put on, as a question that yes answers. */
export function mountAskWords(ask: MountAsk, reader: Reader): string {
  const { size, temperature } = figuresFor(reader);
  switch (ask.code) {
    case 'clean-dry':
      return 'Are both faces clean and dry? Liquid between them eats the lacquer and glues them together.';
    case 'front-mark':
      return `Does its front mark point to the ${ask.edge}?`;
    case 'size':
      return 'over' in ask
        ? `${ask.tag} is ${size(ask.width, 1)} × ${size(ask.depth, 1)} and the plate ${size(ask.plateWidth, 1)} × ${size(ask.plateDepth, 1)}: it stands over by ${size(ask.over, 1)} a side. Do clips and wiring stay clear?`
        : `${ask.tag} is ${size(ask.short, 1)} smaller than the print area. Will every print stay on it?`;
    case 'heat':
      return `${ask.machine} prints at up to ${temperature(ask.hottest)} and ${ask.tag} stands ${temperature(ask.limit)}. Will it be kept below that?`;
  }
}

/** What is good to know when a surface is put on. */
export function mountCautionWords(caution: MountCaution): string {
  switch (caution.code) {
    case 'awaiting':
      return `${caution.tag} waits for work: ${caution.what}.`;
    case 'magnets':
      return 'Strong magnets snap down: keep fingers out from under it.';
    case 'unknown-material':
      return `${caution.machine} printed ${caution.material} lately, and what that is to ${caution.tag} is not known here.`;
    case 'unknown-face':
      return `What the face of ${caution.tag} is made of is not known: try ${caution.material} on a corner first.`;
    case 'material':
      return `${caution.machine} printed ${caution.material} lately. ${caution.because}`;
    case 'home-again':
      return 'Home again and check Z before the first print.';
  }
}
