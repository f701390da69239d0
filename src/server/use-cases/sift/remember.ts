import { normalise } from '@/core';
import type { SavedViewLine, WordTagView } from '@/contracts/decisions';
import type { Note } from '@/contracts/hand';
import { raiseDecisionVersion } from '../../repositories/account/accounts';
import { deleteNote, insertNote, listNotes, type About } from '../../repositories/decisions/notes';
import { findPass, insertLookedAt } from '../../repositories/decisions/passes';
import {
  deleteSavedView,
  findSavedView,
  listSavedViews,
  putSavedView,
} from '../../repositories/decisions/saved-views';
import { listWordTags, setWordTag, type Tag } from '../../repositories/decisions/word-tags';
import { appendLedger } from '../../repositories/ledger';
import { tellMentioned } from '../mentions/mentions';
import { findListName } from '../../repositories/lists/list-names';
import type { Db } from '../../db/connection';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/** Notes on a term (by any spelling of it), a theme or a list. */
export async function viewNotes(deps: Deps, slug: string, about: About): Promise<{ notes: Note[] }> {
  const { id } = await requireAccount(deps, slug);
  return { notes: await listNotes(deps.db, id, asKept(about)) };
}

export async function writeNote(
  deps: Deps,
  slug: string,
  personId: number,
  { body, ...about }: About & { body: string },
  undoes?: number,
): Promise<{ noteId: number }> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const { noteId, isNew } = await insertNote(trx, id, asKept(about), { body, personId });
    if (!isNew) return { noteId };
    const label = await labelOf(trx, id, about);
    const what = `Note on ${label}: ${body}`;
    const undo = { do: 'remove note', note: noteId } as const;
    await appendLedger(trx, id, { actor: { person: personId }, about: 'note', what, undo, undoes });
    await tellMentioned(trx, id, { by: personId, ...asKept(about), label, body, noteId });
    await raiseDecisionVersion(trx, id);
    return { noteId };
  });
}

/** @returns the note, so that it can be written again @throws Refusal when it is gone already */
export async function removeNote(
  deps: Deps,
  slug: string,
  personId: number,
  noteId: number,
  undoes?: number,
): Promise<About & { body: string }> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const note = await deleteNote(trx, id, noteId);
    if (!note) throw new Refusal('This note is gone already.', 404);
    const what = `Remove the note on ${await labelOf(trx, id, note)}: ${note.body}`;
    const undo = { do: 'write note', ...note } as const;
    await appendLedger(trx, id, { actor: { person: personId }, about: 'note', what, undo, undoes });
    await raiseDecisionVersion(trx, id);
    return note;
  });
}

/** How the ledger calls what a note is about. */
async function labelOf(db: Db, accountId: number, { kind, about }: About): Promise<string> {
  if (kind === 'list') return `the list ${(await findListName(db, accountId, about)) ?? 'that is gone'}`;
  return `${kind === 'term' ? '' : 'the theme '}“${about}”`;
}

/** A term's words are compared as texts are; a product code and a theme by what they are. */
function asKept({ kind, about }: About): About {
  return { kind, about: kind === 'term' ? normalise(about) || about : about };
}

export async function viewWordTags(deps: Deps, slug: string): Promise<{ tags: WordTagView[] }> {
  const { id } = await requireAccount(deps, slug);
  return { tags: await listWordTags(deps.db, id) };
}

/** Tags an n-gram, or (null) takes its tag away. @returns the tag before, with which it can be undone */
export async function tagWords(
  deps: Deps,
  slug: string,
  personId: number,
  { text, tag }: { text: string; tag: Tag | null },
  undoes?: number,
): Promise<{ was: Tag | null }> {
  const ngram = normalise(text);
  if (ngram === '') throw new Refusal(`“${text}” holds no word.`);
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const was = await setWordTag(trx, id, ngram, { tag, personId });
    if (was === tag) return { was };
    const what = tag
      ? `Tag “${ngram}” as ${tag === 'location' ? 'a location' : 'neutral'}`
      : `Take the tag off “${ngram}”`;
    const undo = { do: 'tag words', text: ngram, tag: was } as const;
    await appendLedger(trx, id, { actor: { person: personId }, about: 'tag', what, undo, undoes });
    await raiseDecisionVersion(trx, id);
    return { was };
  });
}

export async function viewSavedViews(deps: Deps, slug: string): Promise<{ views: SavedViewLine[] }> {
  const { id } = await requireAccount(deps, slug);
  return { views: await listSavedViews(deps.db, id) };
}

/**
 * Saves filters under a name, for everybody who works on the account.
 * @throws Refusal when the name is taken by a view that was not seen as it is; nothing was changed then
 */
export async function saveView(
  deps: Deps,
  slug: string,
  personId: number,
  { name, search, replaces }: { name: string; search: string; replaces: string | null },
  undoes?: number,
): Promise<{ was: SavedViewLine | null }> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const there = await findSavedView(trx, id, name);
    if (there && there.at !== replaces) {
      throw new Refusal(
        `There is a view named ${name} already, saved by ${there.by}. Nothing was saved: choose another name, or replace it.`,
        409,
      );
    }
    await putSavedView(trx, id, { name, search, personId });
    await appendLedger(trx, id, {
      ...{
        actor: { person: personId },
        about: 'view',
        what: `${there ? 'Replace' : 'Save'} the view ${name}`,
      },
      ...{ before: there ?? null, after: { name, search }, undoes },
      undo: there
        ? { do: 'save view', name, search: there.search, left: search }
        : { do: 'remove view', name },
    });
    await raiseDecisionVersion(trx, id);
    return { was: there ?? null };
  });
}

/** @returns the view, so that it can be saved again @throws Refusal when it is gone already */
export async function removeView(
  deps: Deps,
  slug: string,
  personId: number,
  name: string,
  undoes?: number,
): Promise<SavedViewLine> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const there = await findSavedView(trx, id, name);
    if (!there) throw new Refusal('This view is gone already.', 404);
    await deleteSavedView(trx, id, name);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'view', what: `Remove the view ${name}`, before: there },
      ...{ undo: { do: 'save view', name, search: there.search, left: null }, undoes },
    });
    await raiseDecisionVersion(trx, id);
    return there;
  });
}

/** Notes that terms were in hand in this pass. Before the first report there is no pass, and nothing is noted. */
export async function lookAt(
  deps: Deps,
  slug: string,
  termIds: readonly number[],
): Promise<{ added: number }> {
  const { id } = await requireAccount(deps, slug);
  const pass = await findPass(deps.db, id);
  return { added: pass ? await insertLookedAt(deps.db, id, pass.id, termIds) : 0 };
}
