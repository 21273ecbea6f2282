// The sheet on paper: every step, behind gates too, with room for what was really done and read. Always dark on white.
import type { Ticket } from '../../api/client';
import { useSettings } from '../../ui/settings';
import { ruleWord } from '../../shell/rules';
import { angle, length } from '../../units/print';
import { expectedOf, toeBandOf, unreadOf } from './Expect';
import { cellName, cellRead, cellsOf, findingWords } from '../../sheet/gateWords';
import { Rounds } from '../../sheet/Rounds';
import { axleWord, readAt, sides, type Marks, type Sheet } from '../../sheet/sheet';
import { when } from '../../units/when';

interface Props {
  ticket: Ticket;
  shop: string;
  planName: string;
  planId: string;
  sheet: Sheet;
  marks: Marks;
}

export function PrintSheet({ ticket, shop, planName, planId, sheet, marks }: Props) {
  const { unit, form } = useSettings();
  const { verdict, axles } = sheet.answer;
  const read = (['rear', 'front'] as const).filter((a) => axles[a]);
  return (
    <div className="print-sheet" data-testid="print-sheet">
      <h1>Setting sheet</h1>
      <p>
        <b>{ticket.vehicle.facts.name}</b> · ticket {String(ticket.job.ticket).padStart(4, '0')} · {shop} ·
        plan “{planName}” · {new Date().toLocaleDateString()} · lengths in {unit === 'mm' ? 'mm' : 'inches'},
        angles in {form === 'minutes' ? 'degrees and minutes' : 'degrees'}
      </p>
      {ticket.base.class_rules && (
        <p>
          Rule book: {ticket.base.class_rules.name}
          {(ticket.base.class_rules.forbid ?? []).length > 0 && (
            <>: {(ticket.base.class_rules.forbid ?? []).map((r) => ruleWord(r)).join(', ')}</>
          )}
          .
        </p>
      )}
      {ticket.job.plan_id !== planId && (
        <p className="print-stop">This is not the plan of the job that is the one to set.</p>
      )}
      {(!verdict.reached || (verdict.not_read ?? []).length > 0) && (
        <p className="print-stop">
          <b>{verdict.headline}.</b> {verdict.sentence}
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
            const mark = marks.of(s.id);
            const gate = sheet.gates.find((g) => g.id === s.id);
            const off = mark ? [] : (gate?.off ?? []);
            return (
              <tr key={s.id} className={s.kind === 'gate' ? 'print-gate' : ''}>
                <td>
                  <b>
                    {s.kind === 'gate' ? 'Gate: ' : ''}
                    {mark?.record?.title || s.title}
                  </b>
                </td>
                <td>
                  {mark?.record?.detail || s.detail}
                  {!mark &&
                    s.orders.map(({ axle, side, line }) => (
                      <div key={axle + (side ?? '') + line.name}>
                        {axleWord(axle)} {side ?? 'axle, both wheels'}, {line.name}: <b>{line.words}</b>
                      </div>
                    ))}
                  {(s.notes ?? []).map((n) => (
                    <div key={n}>{n}</div>
                  ))}
                  {!mark && (s.helps ?? []).length > 0 && (
                    <div>Read toe before it is turned, left and right: the turns go by it.</div>
                  )}
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
                      {mark.record.signed && `. Signed: ${mark.record.signed}`}
                    </div>
                  )}
                </td>
                <td>
                  {mark && (
                    <div>
                      done {when(mark.done_at)}, {mark.author}
                      <Rounds rounds={mark.record?.rounds ?? []} />
                    </div>
                  )}
                  {cellsOf(s.needs).map((c) => {
                    const read = readAt(gate, c.axle, c.side ?? 'left', c.quantity);
                    return (
                      <div key={c.axle + c.quantity + (c.side ?? '')} className="blank">
                        {c.side ?? ''} {cellName(c, true)}:{' '}
                        {read ? cellRead(c.quantity, read.value, unit, form) : '____________'}
                      </div>
                    );
                  })}
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
            <th>Wheel</th>
            <th>Height, hub to arch</th>
            <th>Camber</th>
            <th>Caster</th>
            <th>Toe in, this wheel</th>
          </tr>
        </thead>
        <tbody>
          {read.flatMap((a) =>
            sides.map((s) => {
              const r = axles[a]!;
              const e = expectedOf(r, s);
              return (
                <tr key={a + s}>
                  <td>
                    {axleWord(a)} {s}
                  </td>
                  <td>{length(r[s].planned_height_mm, unit)}</td>
                  <td>
                    {angle(e.camber_deg, form, 1)} ±{angle(r[s].doubt.camber_deg, form, 1)}
                  </td>
                  <td>
                    {a === 'front'
                      ? `${angle(e.caster_deg, form, 1)} ±${angle(r[s].doubt.caster_deg, form, 1)}`
                      : '–'}
                  </td>
                  <td>
                    {angle(e.toe_deg, form, 2)} ±{angle(toeBandOf(r, s, sheet.toe_band_deg), form, 2)}
                    {unreadOf(r, 'toe') ? ', not read' : ''}
                  </td>
                </tr>
              );
            }),
          )}
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
