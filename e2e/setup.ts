/** Furnishes the demo shop that every file of journeys copies, and removes it at the end. */
import { rmSync } from 'node:fs';
import { folder, start } from './server';

export default async function setup() {
  const data = (process.env['CORTE_FURNISHED'] = folder());
  await (await start('demo', data, { keep: true })).stop();
  return () => rmSync(data, { recursive: true, force: true });
}
