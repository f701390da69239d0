import { FIGURE_NAMES } from '@/core';
import type { Db } from '../../db/connection';
import { copyOut } from '../../db/copy-out';
import { FIGURE_FIELDS } from '../figure-fields';

/** What later loads added to facts, or took from them. */
export type LateColumns = {
  count: number;
  /** days since 1970: the day of the fact, and the newest day of the load from which the difference is known */
  day: Int32Array;
  knownFrom: Int32Array;
  termId: Int32Array;
  adGroupId: Int32Array;
  keywordId: Int32Array;
  /** the difference of fact f from `FIGURE_NAMES.length` · f on; NaN where there is none */
  figures: Float64Array;
};

const DAY_2000 = 10_957;

/**
 * Reads, within a transaction, by how much loads changed facts that another load had brought. What a load replaced is kept beside
 * it, so that the next version of a fact is what the next load replaced, or what stands there now.
 * @throws the signal's reason when it is aborted
 */
export async function readLateFigures(
  trx: Db,
  accountId: number,
  signal?: AbortSignal,
): Promise<LateColumns> {
  const columns = { day: [], knownFrom: [], termId: [], adGroupId: [], keywordId: [] } as Record<
    'day' | 'knownFrom' | 'termId' | 'adGroupId' | 'keywordId',
    number[]
  >;
  const figures: number[] = [];
  const query = trx.raw(DIFFERENCES, { accountId });
  await copyOut(
    trx,
    query,
    (row) => {
      columns.day.push(row.integer(0) + DAY_2000);
      columns.knownFrom.push(row.integer(1) + DAY_2000);
      columns.termId.push(row.integer(2));
      columns.adGroupId.push(row.integer(3));
      columns.keywordId.push(row.integer(4));
      FIGURE_NAMES.forEach((_, i) => figures.push(row.double(5 + i) || NaN));
    },
    signal,
  );
  return {
    count: columns.day.length,
    ...{ day: Int32Array.from(columns.day), knownFrom: Int32Array.from(columns.knownFrom) },
    ...{ termId: Int32Array.from(columns.termId), adGroupId: Int32Array.from(columns.adGroupId) },
    keywordId: Int32Array.from(columns.keywordId),
    figures: Float64Array.from(figures),
  };
}

const all = (of: (field: string) => string) => FIGURE_FIELDS.map(of).join(', ');

const DIFFERENCES = `
  select day, known_from, term_id, ad_group_id, keyword_id,
         ${all((field) => `cast(coalesce(is_${field}, 0) - coalesce(was_${field}, 0) as double precision)`)}
    from (
      select r.day, r.term_id, r.ad_group_id, r.keyword_id, cast(f.outcome->'days'->>'to' as date) as known_from,
             ${all((field) => `r.${field} as was_${field}`)},
             ${all((field) => `case when r.next_load is null then now.${field} else r.next_${field} end as is_${field}`)}
        from (
          select day, term_id, ad_group_id, keyword_id, report_file_id, ${FIGURE_FIELDS.join(', ')},
                 lead(report_file_id) over versions as next_load,
                 ${all((field) => `lead(${field}) over versions as next_${field}`)}
            from replaced_fact where account_id = :accountId
          window versions as (partition by day, term_id, ad_group_id, keyword_id order by report_file_id)
        ) r
        join report_file f on f.account_id = :accountId and f.report_file_id = r.report_file_id
        left join term_day now on now.account_id = :accountId and r.next_load is null
              and (now.day, now.term_id, now.ad_group_id, now.keyword_id)
                  = (r.day, r.term_id, r.ad_group_id, r.keyword_id)
    ) version
   where known_from > day and (${FIGURE_FIELDS.map((field) => `was_${field} is distinct from is_${field}`).join(' or ')})`;
