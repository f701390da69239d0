/** What came; times are ISO texts. */
export type Received =
  | { by: 'mail'; at: string; to: string; id: string; subject: string; text: string }
  | { by: 'hook'; at: string; path: string; signature: string; body: unknown };

const STYLE = `body { font: 14px/1.5 system-ui, sans-serif; max-width: 76ch; margin: 2rem auto; padding: 0 1rem; color: #1d2a24; }
article { border-top: 1px solid #c9cfc8; padding: .75rem 0; } h2 { font-size: 1rem; margin: 0; }
p { margin: 0; color: #55625b; } pre { white-space: pre-wrap; overflow-wrap: anywhere; margin: .5rem 0 0; }`;

/** What came, the newest first, as a page without scripts. */
export function pageOf(received: readonly Received[]): string {
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>Stand-in inbox</title><style>${STYLE}</style>
<h1>Stand-in inbox</h1>
<p>Letters and hooks that Gate Post sent. They reach nobody. Read again to see what came since.</p>
${received.map(articleOf).join('\n') || '<p>Nothing came yet.</p>'}`;
}

function articleOf(one: Received): string {
  const at = `<time datetime="${one.at}">${one.at.slice(0, 16).replace('T', ' ')} UTC</time>`;
  return one.by === 'mail'
    ? `<article><h2>${escaped(one.subject)}</h2><p>mail to ${escaped(one.to)}, ${at}</p><pre>${escaped(one.text)}</pre></article>`
    : `<article><h2>${escaped(one.path)}</h2><p>web hook, ${at}, signed ${escaped(one.signature)}</p><pre>${escaped(JSON.stringify(one.body, null, 2))}</pre></article>`;
}

const ENTITIES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escaped = (text: string) => text.replace(/[&<>"]/g, (sign) => ENTITIES[sign]!);
