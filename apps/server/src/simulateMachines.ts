import { simulatedFleet } from './demo/simulatedFleet';

/** Runs the demo's simulated machines in a process of their own, as real machines would stand beside the server. */
async function main(): Promise<void> {
  const basePort = Number(process.env['EVEN_BED_CONSOLES'] ?? 4300);
  const fleet = simulatedFleet({
    seed: process.env['EVEN_BED_DEMO_SEED'] ?? 'saltmarsh',
    basePort,
    paceMs: Number(process.env['EVEN_BED_PACE'] ?? 80),
  });
  for (const { name, port, machine } of fleet) {
    await machine.listen(port).catch(() => {
      throw new Error(
        `Port ${port}, the console of ${name}, is taken. Choose another base: EVEN_BED_CONSOLES=${basePort + 100} npm run demo`,
      );
    });
  }
  process.stdout.write(`${fleet.length} simulated machines listen from port ${basePort}\n`);
  const stop = () => void Promise.all(fleet.map(({ machine }) => machine.close())).then(() => process.exit(0));
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});
