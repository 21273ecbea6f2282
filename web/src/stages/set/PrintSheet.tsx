// The sheet on paper: every step, behind gates too, with room for what was really done and read. Always dark on white.
import type { Schemas, Ticket } from '../../api/client';
import { useSettings } from '../../shell/settings';
import { angle, length } from '../../units/print';
import { findingWords } from './gateWords';
import { orderOf, sides, type Gates, type Sheet, type Step } from './sheet';

interface Props {
  ticket: Ticket;
  shop: string;
  planName: string;
  sheet: Sheet;
  gates: Gates;
  expected: (s: 'left' | 'right') => Schemas['Alignment'];
}

function lines(s: Step, sheet: Sheet): { side: string; line: Schemas['SettingLine'] }[] {
  const toe = s.id === 'tie-rods' ? true : s.id === 'cams' ? false : undefined;
  if (toe === undefined) return [];
  return sides.flatMap((side) =>
    sheet.result[side].setting
      .filter((l) => l.sets_toe === toe && (!l.shared || side === 'left'))
      .map((line) => ({ side: line.shared ? 'both' : side, line })),
  );
}

export function PrintSheet({ ticket, shop, planName, sheet, gates, expected }: Props) {
  const { unit, form } = useSettings();
  const r = sheet.result;
  const d = (s: 'left' | 'right') => r[s].doubt;
  return (
    <div className="print-sheet" data-testid="print-sheet">
      <h1>Setting sheet</h1>
      <p>
        <b>{ticket.vehicle.facts.name}</b> · ticket {String(ticket.job.ticket).padStart(4, '0')} · {shop} ·
        plan “{planName}” · {new Date().toLocaleDateString()} · lengths in {unit}, angles in{' '}
        {form === 'minutes' ? 'degrees and minutes' : 'degrees'}
      </p>
      {(!r.verdict.reached || (r.verdict.fouls ?? []).length > 0) && (
        <p className="print-stop">
          <b>{r.verdict.headline}.</b> {r.verdict.sentence}
        </p>
      )}
      <table>
        <thead>
          <tr>
            <th>Step</th>
            <th>Order</th>
            <th>Done as, read</th>
          </tr>
        </thead>
        <tbody>
          {sheet.steps.map((s) => {
            const mark = gates.marked(s.id);
            const orders = lines(s, sheet);
            const off = mark ? [] : (sheet.gates.find((g) => g.id === s.id)?.off ?? []);
            return (
              <tr key={s.id} className={s.kind === 'gate' ? 'print-gate' : ''}>
                <td>
                  <b>
                    {s.kind === 'gate' ? 'Gate: ' : ''}
                    {mark?.record?.title || s.title}
                  </b>
                </td>
                <td>
                  {mark?.record?.detail || orderOf(s, sheet, unit)}
                  {!mark &&
                    orders.map(({ side, line }) => (
                      <div key={side + line.name}>
                        {side === 'both' ? 'Both wheels' : side === 'left' ? 'Left' : 'Right'}, {line.name}:{' '}
                        <b>{line.words}</b>
                      </div>
                    ))}
                  {s.cautions.map((c) => (
                    <div key={c} className="print-caution">
                      {c}
                    </div>
                  ))}
                  {off.length > 0 && (
                    <div className="print-stop">
                      Off, not opened: {off.map((f) => findingWords(f, unit, form)).join('; ')}
                    </div>
                  )}
                  {mark?.record?.reason && (
                    <div className="print-stop">
                      Opened off plan:{' '}
                      {(mark.record.off ?? []).map((f) => findingWords(f, unit, form)).join('; ')}. Reason:{' '}
                      {mark.record.reason}
                    </div>
                  )}
                </td>
                <td>
                  {mark && (
                    <div>
                      done {new Date(mark.done_at).toLocaleString()}, {mark.author}
                    </div>
                  )}
                  {s.needs.flatMap((q) =>
                    sides.map((side) => {
                      const read = gates.reading(s.id, q, side);
                      return (
                        <div key={q + side} className="blank">
                          {side} {q}:{' '}
                          {read
                            ? q === 'height'
                              ? length(read.value, unit)
                              : angle(read.value, form, q === 'toe' ? 2 : 1)
                            : '____________'}
                        </div>
                      );
                    }),
                  )}
                  {!mark && s.kind === 'step' && <div className="blank">____________________</div>}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <h2>Expected at the planned height, 90 of 100 times within</h2>
      <table>
        <thead>
          <tr>
            <th>Side</th>
            <th>Height, hub to arch</th>
            <th>Camber</th>
            <th>Caster</th>
            <th>Toe in, this wheel</th>
          </tr>
        </thead>
        <tbody>
          {sides.map((s) => (
            <tr key={s}>
              <td>{s === 'left' ? 'Left' : 'Right'}</td>
              <td>{length(r[s].planned_height_mm, unit)}</td>
              <td>
                {angle(expected(s).camber_deg, form, 1)} ±{angle(d(s).camber_deg, form, 1)}
              </td>
              <td>
                {angle(expected(s).caster_deg, form, 1)} ±{angle(d(s).caster_deg, form, 1)}
              </td>
              <td>
                {angle(expected(s).toe_deg, form, 2)} ±{angle(sheet.toe_band_deg, form, 2)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {sheet.cautions.map((c) => (
        <p key={c} className="print-caution">
          {c}
        </p>
      ))}
    </div>
  );
}
