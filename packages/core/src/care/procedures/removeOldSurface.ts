import { DONE, STOPPED, type Procedure, type StepEffect } from '../procedure';

const OFF: StepEffect = { kind: 'take-off', part: 'old', place: 'taken off, to look at' };
/** The mat that lay under it: what is stuck next asks whether one is there. */
const MAT_OFF: StepEffect = { kind: 'take-off', part: 'mat', place: 'taken off, to look at' };

/** Taking an old stuck surface off, with the magnet that may lie under glass. */
export const removeOldSurface: Procedure = {
  id: 'remove-old-surface',
  title: 'Remove an old surface',
  family: 'any',
  about: 'A stuck sheet, film, mat or pane comes off warm, and the plate is clean for what follows.',
  minutes: 40,
  tools: ['scraper with a plastic edge', 'clean towels', 'gloves', 'surface thermometer'],
  materials: ['alcohol, 90 % or more', 'acetone for bare metal, if residue is stubborn'],
  parts: [
    {
      id: 'old',
      label: 'What comes off',
      groups: ['sheet', 'glass', 'laminate', 'cover', 'base', 'flex-plate'],
      from: 'machine',
    },
    { id: 'mat', label: 'The mat under it, if one comes off too', groups: ['base'], from: 'machine' },
    { id: 'stays', label: 'What stays under it', groups: ['platform', 'glass', 'base'], from: 'machine' },
  ],
  choices: [
    {
      id: 'residue',
      question: 'What takes the residue off',
      options: [
        { id: 'alcohol', label: 'Alcohol', because: 'Enough for most adhesives, and kind to coats and lacquer.' },
        { id: 'acetone', label: 'Acetone', because: 'For stubborn residue, on bare metal only.' },
      ],
      usual: 'alcohol',
    },
  ],
  phases: [
    { id: 'warm', title: 'Make room, warm' },
    { id: 'peel', title: 'Peel' },
    { id: 'cool', title: 'Off, cool' },
    { id: 'clean', title: 'Residue, wipe' },
  ],
  steps: [
    {
      id: 'room',
      title: 'Make room',
      doing:
        'Head up and aside with the motors’ own jog, or slowly by hand. Gloves on, vat out of a resin printer and covered.',
      why: 'Axes pushed fast feed current back into the electronics.',
      phase: 'warm',
      cautions: ['moving', 'resin'],
      cant: [{ label: 'An axis does not move', to: 'blocked' }],
      next: 'warm',
    },
    {
      id: 'blocked',
      title: 'Find what blocks',
      doing: 'Power off. Look for what blocks the axis: a clip, a cable, a driven-in nozzle. Don’t force it.',
      phase: 'warm',
      cautions: ['knock', 'mains'],
      ask: {
        question: 'Does it move now?',
        answers: [
          { id: 'yes', label: 'It moves', to: 'warm' },
          { id: 'no', label: 'it does not', to: STOPPED },
        ],
      },
      cant: [{ label: 'It needs a repair first', to: STOPPED }],
      next: 'warm',
    },
    {
      id: 'warm',
      title: 'Warm it, and keep it warm',
      doing:
        'Bed at 60 to 70 °C; it stays on while you peel. A platform without a heater: a hair dryer, evenly. Measure the top.',
      why: 'Warm adhesive lets go; the part that is not warmed leaves residue.',
      phase: 'warm',
      cautions: ['hot'],
      readings: [{ id: 'top', label: 'Top', unit: '°C', min: 0, max: 120 }],
      branches: [
        { reading: 'top', over: 75, to: 'too-hot' },
        { reading: 'top', under: 45, to: 'not-warm' },
      ],
      sum: 'soak',
      setpoint: 65,
      cant: [{ label: 'There is no way to warm it', to: 'cold-way' }],
      next: 'peel',
    },
    {
      id: 'too-hot',
      title: 'Let it cool a little',
      doing: 'That is more than is needed. Set the heater lower and wait until the top is below 70 °C.',
      phase: 'warm',
      timer: { name: 'Cooling a little', least: { seconds: 120 } },
      cautions: ['hot'],
      cant: [{ label: 'It goes on heating: plug out', to: 'blocked' }],
      next: 'warm',
    },
    {
      id: 'not-warm',
      title: 'Wait for the warmth',
      doing: 'The top is not warm yet. Give it five minutes more, with a towel over it.',
      phase: 'warm',
      timer: { name: 'Warming on', least: { seconds: 300 } },
      cant: [{ label: 'It does not get warmer', to: 'cold-way' }],
      next: 'warm',
    },
    {
      id: 'cold-way',
      title: 'Work cold',
      doing: 'Cold it goes too, slower and with more residue: lift less at a time.',
      phase: 'warm',
      cant: [{ label: 'It does not lift cold', to: STOPPED }],
      next: 'peel',
    },
    {
      id: 'peel',
      title: 'Peel while it is warm',
      doing:
        'Lift one corner with the scraper, then peel slowly and low, flat back over itself. Look what lies there then.',
      why: 'Low and slow the adhesive comes along; pulled up it stays on the plate.',
      phase: 'peel',
      bound: true,
      cautions: ['blade', 'hot', 'bend'],
      picture: 'peel-warm',
      ask: {
        question: 'What came off?',
        answers: [
          { id: 'whole', label: 'It is off', to: 'off' },
          { id: 'mat', label: 'off, and a mat or another layer is there', to: 'warm' },
          { id: 'torn', label: 'it tore', to: 'torn' },
          { id: 'glass', label: 'glass: it does not move', to: 'glass-welded' },
        ],
      },
      cant: [{ label: 'It cooled down', to: 'warm' }],
      next: 'off',
      effects: [
        { ...OFF, answers: ['whole', 'mat'] },
        { ...MAT_OFF, answers: ['whole'] },
        { kind: 'book', text: 'Peeled off warm.', answers: ['whole', 'mat'] },
      ],
    },
    {
      id: 'torn',
      title: 'Lift the torn part',
      doing: 'Warm it again. Lift the rest from another corner, a strip at a time. Look what lies under it.',
      phase: 'peel',
      cautions: ['blade', 'hot'],
      ask: {
        question: 'What is there now?',
        answers: [
          { id: 'bare', label: 'Nothing is left on the plate', to: 'off' },
          { id: 'mat', label: 'a mat or another layer', to: 'warm' },
        ],
      },
      cant: [{ label: 'Scraps stay', to: 'off' }],
      next: 'off',
      effects: [
        { ...OFF, on: 'always' },
        { ...MAT_OFF, answers: ['bare'] },
      ],
    },
    {
      id: 'glass-welded',
      title: 'A pane that is welded down',
      doing:
        'Don’t lever: it shatters. The mat under it comes off with it: bed at 70 °C for ten minutes, plastic scraper under the mat’s edge, and lift mat and pane together, slowly, with patience.',
      why: 'Glass straight on an old magnetic mat bonds to it after a few hot prints and can’t be lifted cold.',
      phase: 'peel',
      cautions: ['glass', 'blade', 'hot'],
      ask: {
        question: 'Did it come off?',
        answers: [
          { id: 'yes', label: 'Mat and pane are off together', to: 'off' },
          { id: 'no', label: 'there is no mat, or it stays', to: 'glass-cold' },
        ],
      },
      cant: [{ label: 'It is cracking', to: 'give-up-plate' }],
      next: 'off',
      effects: [
        { ...OFF, answers: ['yes'] },
        { ...MAT_OFF, answers: ['yes'] },
        { kind: 'book', text: 'Pane and mat came off together, warm.', answers: ['yes'] },
      ],
    },
    {
      id: 'glass-cold',
      title: 'The pane, cold',
      doing:
        'Heater off. Let it cool wholly; tap round the edge with a plastic edge, and try a thin wire or floss between.',
      phase: 'peel',
      cautions: ['glass', 'blade'],
      ask: {
        question: 'Did it come off?',
        answers: [
          { id: 'yes', label: 'It is off', to: 'off' },
          { id: 'no', label: 'it stays', to: 'give-up-plate' },
        ],
      },
      cant: [{ label: 'It is cracking', to: 'give-up-plate' }],
      next: 'off',
      effects: [{ ...OFF, answers: ['yes'] }],
    },
    {
      id: 'give-up-plate',
      title: 'Leave it as it is',
      doing: 'Leave the pane on and plan for a new plate, or go on printing on it. Write down which.',
      phase: 'peel',
      cautions: ['glass'],
      photo: true,
      cant: [{ label: 'Nothing is decided yet', to: STOPPED }],
      next: STOPPED,
      effects: [{ kind: 'book', text: 'The old pane can’t be lifted; it stays or the plate is replaced.' }],
    },
    {
      id: 'off',
      title: 'Heater off, let it cool',
      doing:
        'Switch the heater off, and the power if wiring will be near your hands. Wait until the top is below 35 °C; air the room.',
      why: 'Solvent near a warm bed is a fire waiting for a spark.',
      phase: 'cool',
      cautions: ['solvent', 'mains', 'hot'],
      readings: [{ id: 'top', label: 'Top', unit: '°C', min: 0, max: 120, most: 35, optional: true }],
      gate: { checks: ['Is the heater off, the top below 35 °C, the room aired, no flame near?'] },
      cant: [{ label: 'There is no thermometer', to: 'wait-cool' }],
      next: 'residue',
    },
    {
      id: 'wait-cool',
      title: 'Wait half an hour',
      doing: 'Without a thermometer: half an hour with the heater off, then the back of a hand near it, not on it.',
      phase: 'cool',
      timer: { name: 'Cooling', least: { seconds: 1800 } },
      cautions: ['hot'],
      cant: [{ label: 'It is still hot', to: 'wait-cool' }],
      next: 'off',
    },
    {
      id: 'residue',
      title: 'Take the residue off',
      doing:
        'Wet the residue, let it soak under a wet towel for some minutes, then push it off with a plastic edge, away from you.',
      phase: 'clean',
      byChoice: {
        choice: 'residue',
        says: {
          alcohol: 'With alcohol.',
          acetone: 'With acetone, on bare metal only: never on a coat, a lacquer or plastic.',
        },
      },
      cautions: ['solvent', 'blade'],
      sum: 'together',
      about: 'stays',
      uses: { choice: 'residue' },
      cant: [{ label: 'It does not dissolve', to: 'stubborn' }],
      next: 'towel',
    },
    {
      id: 'stubborn',
      title: 'Stubborn residue, old glue',
      doing:
        'A towel wet with it over the place, ten minutes by the clock, then the plastic edge. On bare metal: acetone, a small place at a time. On anything with a coat: alcohol and patience.',
      phase: 'clean',
      timer: { name: 'Soak under a wet towel', least: { seconds: 600 } },
      cautions: ['solvent'],
      cant: [{ label: 'It stays', to: STOPPED }],
      next: 'towel',
    },
    {
      id: 'towel',
      title: 'Wipe until the towel stays white',
      doing: 'Wipe with a fresh towel and a clean face each time, until it stays white.',
      why: 'Two to four wipes are usual; more than ten, and residue is left.',
      phase: 'clean',
      readings: [{ id: 'wipes', label: 'Wipes', unit: 'wipes', min: 1, max: 30, optional: true }],
      branches: [{ reading: 'wipes', over: 10, to: 'stubborn' }],
      cautions: ['solvent'],
      cant: [{ label: 'It never stays white', to: 'stubborn' }],
      next: DONE,
      effects: [
        { kind: 'lift-layers', part: 'old' },
        { kind: 'book', text: 'The plate is bare and wiped clean.' },
        { kind: 'materials', used: ['towels', 'solvent'] },
      ],
    },
  ],
};
