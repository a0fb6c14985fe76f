import { SimulatedMachine } from '../machines/simulated/SimulatedMachine';
import { consolePort, MACHINES, MODELS } from './saltmarsh';

/** The demo's machines that have a console, each with the port on which it listens. */
export function simulatedFleet({ seed, basePort, paceMs }: { seed: string; basePort: number; paceMs: number }) {
  return MACHINES.flatMap(({ name, model, layout, mute, printsPlus, seenFrom, bed }) => {
    if (!layout) return [];
    const { print, adjusters, columns, rows } = MODELS[model];
    const machine = new SimulatedMachine({
      name,
      nature: { seed: `${seed} ${name}`, ...bed },
      frame: { adjusters, seenFrom: seenFrom ?? 'above', width: print[0], depth: print[1] },
      layout,
      plus: printsPlus ?? 'higher',
      columns,
      rows,
      mute: mute ?? false,
      paceMs,
    });
    return [{ name, port: consolePort(name, basePort), machine }];
  });
}
