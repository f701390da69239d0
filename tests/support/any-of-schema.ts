import fc from 'fast-check';
import type * as v from 'valibot';

/** Texts that are ids, terms and days of the small world, and others that no honest browser would send. */
const TEXTS = [
  ...['1', '2', '3', 'movie', 'bee hive kit', 'free bee hive plans', 'LK-2041', '2026-11-20', 'exact', '30'],
  ...['', ' ', '0', '-1', '1.5', '1e3', 'NaN', '9'.repeat(25), 'x'.repeat(300), '0,0', '0,1', '99', 'null'],
  ...['\0', 'a\0b', '\ud800', '💥', '%', '\\', '__proto__', "'; drop table term; --", '=1+1', '{}'],
];
const NUMBERS = [0, 1, 2, 3, 60, -1, 1.5, 1e6, 2 ** 31, 2 ** 53, 1e300];

type Schema = v.GenericSchema & {
  type: string;
  entries: Record<string, Schema>;
  wrapped: Schema;
  item: Schema;
  items: Schema[];
  key: Schema;
  value: Schema;
  options: unknown[];
  literal: unknown;
  getter: (input: unknown) => Schema;
};

/**
 * Values of the shape of a schema, whose texts and numbers are often not what it takes.
 * @throws Error when the schema is of a kind that is not known here
 */
export function anyOf(of: v.GenericSchema): fc.Arbitrary<unknown> {
  const schema = of as Schema;
  switch (schema.type) {
    case 'object':
    case 'strict_object':
    case 'loose_object':
      return fc.record(mapped(schema.entries));
    case 'record':
      return fc.dictionary(anyOf(schema.key).map(String), anyOf(schema.value), { maxKeys: 3 });
    case 'array':
      return fc.array(anyOf(schema.item), { maxLength: 3 });
    case 'tuple':
      return fc.tuple(...schema.items.map(anyOf));
    case 'variant':
    case 'union':
      return fc.oneof(...(schema.options as Schema[]).map(anyOf));
    case 'optional':
    case 'exact_optional':
      return fc.option(anyOf(schema.wrapped), { nil: undefined });
    case 'nullable':
    case 'nullish':
      return fc.option(anyOf(schema.wrapped), { nil: null });
    case 'picklist':
      return fc.constantFrom(...schema.options);
    case 'lazy':
      return anyOf(schema.getter(undefined));
    case 'literal':
      return fc.constant(schema.literal);
    case 'null':
      return fc.constant(null);
    case 'boolean':
      return fc.boolean();
    case 'string':
      return fc.constantFrom(...TEXTS);
    case 'number':
      return fc.constantFrom(...NUMBERS);
    default:
      throw new Error(`a schema must be of a known kind; got ${schema.type}`);
  }
}

function mapped(entries: Record<string, Schema>): Record<string, fc.Arbitrary<unknown>> {
  return Object.fromEntries(Object.entries(entries).map(([name, entry]) => [name, anyOf(entry)]));
}

/** What stands in an address in place of a number. */
export const anyParam = fc.constantFrom('1', '2', '3', ...TEXTS);
