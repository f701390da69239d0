import { findNodeAtLocation, parseTree, printParseErrorCode, type ParseError } from 'jsonc-parser';
import * as v from 'valibot';
import { PackSchema, type Pack } from '@/contracts/packs';

/** A pack as its file says, or why it is none: each reason with the line (from 1) at which it stands. */
export type ReadPack = { pack: Pack } | { faults: { line: number; reason: string }[] };

/** Faults that are told of one file. */
const MOST_FAULTS = 5;

/**
 * Reads a starter pack (packs/README.md).
 * @param text of the file
 */
export function readPack(text: string): ReadPack {
  const errors: ParseError[] = [];
  const tree = parseTree(text.replace(/^\uFEFF/u, ' '), errors, { disallowComments: true });
  const lineAt = (offset: number) => text.slice(0, offset).split('\n').length;
  if (!tree || errors.length > 0)
    return {
      faults:
        errors.length === 0
          ? [{ line: 1, reason: 'the file is empty' }]
          : errors.slice(0, MOST_FAULTS).map(({ error, offset }) => ({
              line: lineAt(offset),
              reason: `this is no JSON: ${toWords(printParseErrorCode(error))}`,
            })),
    };
  const read = v.safeParse(PackSchema, JSON.parse(text.replace(/^\uFEFF/u, '')));
  if (read.success) return { pack: read.output };
  return {
    faults: read.issues.slice(0, MOST_FAULTS).map((issue) => {
      const path = (issue.path ?? []).map(({ key }) => key as string | number);
      return {
        line: lineAt(nearest(tree, path)?.offset ?? 0),
        reason: `${path.join('.') || 'the file'}: ${issue.message.replace(/\.$/u, '')}`,
      };
    }),
  };
}

/** What stands at a path; where nothing does, what it would stand in. */
function nearest(tree: NonNullable<ReturnType<typeof parseTree>>, path: (string | number)[]) {
  for (let length = path.length; length > 0; length--) {
    const node = findNodeAtLocation(tree, path.slice(0, length));
    if (node) return node;
  }
  return tree;
}

/** @example toWords('CommaExpected') // 'comma expected' */
const toWords = (code: string) => code.replaceAll(/(?<=[a-z])([A-Z])/g, ' $1').toLowerCase();
