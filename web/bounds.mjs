/** Writes what the contract asks of records that are typed, as JSON Schema, to src/api/bounds.json. */
import { readFileSync, writeFileSync } from 'node:fs';
import { format } from 'prettier';
import { parse } from 'yaml';

const typed = ['BladeInput', 'SawInput', 'DadoSetInput', 'ShopInput', 'BathAsk', 'Sending', 'Returned'];
const place = '#/components/schemas/';
const { schemas } = parse(readFileSync('../api/openapi.yaml', 'utf8'), { merge: true }).components;

const $defs = {};
function take(name) {
  if (name in $defs) return;
  $defs[name] = {};
  $defs[name] = JSON.parse(JSON.stringify(schemas[name]), (key, value) => {
    if (key === 'description' && typeof value === 'string') return undefined;
    if (key.startsWith('x-') || key === 'default' || (key === 'format' && value === 'double'))
      return undefined;
    if (key !== '$ref') return value;
    take(value.slice(place.length));
    return `#/$defs/${value.slice(place.length)}`;
  });
}
typed.forEach(take);
writeFileSync(
  'src/api/bounds.json',
  await format(JSON.stringify({ $defs }), { parser: 'json', printWidth: 110 }),
);
