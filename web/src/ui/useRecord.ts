/**
 * A record as a form has it: what is typed, what of it is past the bounds of the
 * contract (src/api/bounds.json, written by `make generate`), and whether it was
 * changed. What the craft has against it, the server says.
 */
import { zodResolver } from '@hookform/resolvers/zod';
import { t } from '@lingui/core/macro';
import {
  useForm,
  useWatch,
  type DefaultValues,
  type FieldValues,
  type Path,
  type PathValue,
} from 'react-hook-form';
import { z } from 'zod';
import bounds from '../api/bounds.json';

type Typed = keyof typeof bounds.$defs;

const schemas = new Map<Typed, z.ZodType<FieldValues, FieldValues>>();

function schemaOf(of: Typed) {
  let schema = schemas.get(of);
  if (!schema) {
    const json = { ...bounds, $ref: `#/$defs/${of}` } as Parameters<typeof z.fromJSONSchema>[0];
    schema = z.fromJSONSchema(json) as z.ZodType<FieldValues, FieldValues>;
    schemas.set(of, schema);
  }
  return schema;
}

/** The fields of a record that can be typed, as the contract has them. */
export const typedOf = <T>(of: 'BladeInput' | 'SawInput') =>
  Object.keys(bounds.$defs[of].properties) as (keyof T)[];

/** What is past a bound, as a person would say it. */
const says: z.core.$ZodErrorMap = (issue) => {
  if (issue.code === 'too_big')
    return issue.origin === 'string'
      ? t`At most ${String(issue.maximum)} letters.`
      : t`At most ${String(issue.maximum)}.`;
  if (issue.code === 'too_small')
    return issue.origin === 'string' ? t`Enter something here.` : t`At least ${String(issue.minimum)}.`;
  if (issue.code === 'invalid_type' && issue.expected === 'int') return t`Enter a whole number.`;
  return t`Can't save this.`;
};

export interface RecordOf<T> {
  input: T;
  set: (part: Partial<T>) => void;
  problem: (field: keyof T & string) => string | undefined;
  bounded: boolean; // nothing of it is past a bound
  changed: boolean;
  now: () => T; // as typed by now, where several fields are read at once
  kept: () => void; // it is saved as it stands
}

export function useRecord<T extends FieldValues>(start: T, of: Typed): RecordOf<T> {
  const form = useForm<T>({
    defaultValues: start as DefaultValues<T>,
    resolver: zodResolver(schemaOf(of), { error: says }) as never,
    mode: 'onChange',
  });
  const { errors, isDirty } = form.formState;
  return {
    input: useWatch({ control: form.control }) as T,
    // Readings of several fields may be under way at once; none may undo another.
    set: (part) => {
      for (const [field, value] of Object.entries(part))
        form.setValue(field as Path<T>, value as PathValue<T, Path<T>>, {
          shouldDirty: true,
          shouldValidate: true,
        });
    },
    problem: (field) => errors[field]?.message as string | undefined,
    bounded: Object.keys(errors).length === 0,
    changed: isDirty,
    now: form.getValues,
    kept: () => form.reset(form.getValues()),
  };
}
