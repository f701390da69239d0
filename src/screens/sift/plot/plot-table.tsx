import { useMoney } from '@/screens/frame/money';
import { formatRegion, type PlotAnswer } from '@/contracts/sift';
import { formatConversions, formatCount } from '@/ui/format';
import { bandsOf } from './bands';

/** The plot as a table: terms by how many clicks they had, each band a way to its terms. */
export function PlotTable({ data, onRegion }: { data: PlotAnswer; onRegion: (region: string) => void }) {
  const formatMoney = useMoney();
  return (
    <table className="m-3 text-table">
      <caption className="pb-1 text-left text-soft">
        The same as a table; choose a band to see its terms
      </caption>
      <thead className="text-small text-soft">
        <tr>
          <th className="pr-6 text-left font-normal">clicks</th>
          <th className="px-3 text-right font-normal">terms</th>
          <th className="px-3 text-right font-normal">without conversion</th>
          <th className="px-3 text-right font-normal">surely missing</th>
          <th className="px-3 text-right font-normal">cost</th>
          <th className="px-3 text-right font-normal">conv.</th>
        </tr>
      </thead>
      <tbody>
        {bandsOf(data).map((band) => (
          <tr key={band.clicks.join('-')} className="border-t border-line">
            <td className="pr-6">
              <button
                type="button"
                className="min-h-6 font-semibold text-pine hover:underline"
                onClick={() =>
                  onRegion(
                    formatRegion({ clicks: band.clicks, conversions: [0, Math.ceil(band.mostConversions)] }),
                  )
                }
              >
                {band.clicks[0] === band.clicks[1] ? band.clicks[0] : band.clicks.join('–')}
              </button>
            </td>
            <td className="px-3 text-right">{formatCount(band.terms)}</td>
            <td className="px-3 text-right">{formatCount(band.without)}</td>
            <td className="px-3 text-right">{formatCount(band.sure)}</td>
            <td className="px-3 text-right">{formatMoney(band.costMicros)}</td>
            <td className="px-3 text-right">{formatConversions(band.conversions)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
