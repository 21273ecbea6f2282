// Orders of both sides, each with its drawing; what is one for both wheels stands once.
import { CamFigure, TieRodFigure } from '../../figures/CamFigure';
import { Half } from '../../shell/glyphs';
import type { Schemas, SideName } from '../../api/client';
import { sides } from './sheet';

type Line = Schemas['SettingLine'];
type Result = Schemas['PlanResult'];

const end = (l: Line) => (l.at_end ? (l.is_cam && l.notch_deg ? ' · last notch' : ' · at its end') : '');

function Order({ line, side, fs }: { line: Line; side: SideName; fs: number }) {
  const leave = line.direction === 'leave';
  const amount = line.words.replace(` ${line.direction}`, '');
  const test = `set-${line.shared ? 'axle' : side}-${line.name.toLowerCase().replaceAll(' ', '-')}`;
  return (
    <div style={{ minWidth: 0 }}>
      {line.is_cam && <CamFigure line={line} side={side} />}
      {['longer', 'shorter'].includes(line.direction) && <TieRodFigure line={line} />}
      <span className="lab">{line.name}</span>
      <div className="fig" style={{ fontSize: 29 * fs, fontWeight: 800, marginTop: 3 }} data-testid={test}>
        {leave ? 'leave' : amount}
      </div>
      <div className="fig mut" style={{ fontSize: 20 * fs, fontWeight: 650, marginTop: 3 }}>
        {leave ? 'where it stands' : line.direction}
        {leave ? '' : end(line)}
      </div>
    </div>
  );
}

/** Everything but toe. */
export function Orders({ result, veiled, fs }: { result: Result; veiled: boolean; fs: number }) {
  const of = (s: SideName) => result[s].setting.filter((l) => !l.sets_toe && !l.shared);
  const shared = result.left.setting.filter((l) => !l.sets_toe && l.shared);
  const own = sides.some((s) => of(s).length > 0);
  if (!own && !shared.length) return null;
  return (
    <>
      {shared.length > 0 && (
        <div className={`set-row one ${veiled ? 'veiled' : ''}`}>
          <div className="set-card">
            <h2>Both wheels, one for the axle</h2>
            <div className="set-orders">
              {shared.map((l) => (
                <Order key={l.name} line={l} side="left" fs={fs} />
              ))}
            </div>
          </div>
        </div>
      )}
      {own && (
        <div className={`set-row ${veiled ? 'veiled' : ''}`}>
          {sides.map((s) => (
            <div key={s} className="set-card">
              <h2 style={{ display: 'flex', gap: 10, alignItems: 'center' }}>
                <Half side={s} size={26} /> {s === 'left' ? 'Left' : 'Right'}
              </h2>
              <div className="set-orders">
                {of(s).map((l) => (
                  <Order key={l.name} line={l} side={s} fs={fs} />
                ))}
              </div>
            </div>
          ))}
        </div>
      )}
    </>
  );
}

/** Toe, last of all; the angle beside it is the one that is expected after it. */
export function ToeOrders({
  result,
  veiled,
  fs,
  toe,
}: {
  result: Result;
  veiled: boolean;
  fs: number;
  toe: (s: SideName) => string;
}) {
  const line = (s: SideName) => result[s].setting.find((l) => l.sets_toe);
  const one = line('left')?.shared;
  const shown = one ? (['left'] as const) : sides;
  if (!shown.some((s) => line(s))) return null;
  return (
    <div className={`set-row ${one ? 'one' : ''} ${veiled ? 'veiled' : ''}`}>
      {shown.map((s) => {
        const l = line(s);
        return (
          <div key={s} className="set-card" style={{ display: 'flex', gap: 14, alignItems: 'center' }}>
            {l && (
              <>
                <TieRodFigure line={l} />
                <div>
                  <span className="lab">
                    {one ? '' : s === 'left' ? 'Left ' : 'Right '}
                    {one ? l.name : l.name.toLowerCase()} {veiled ? '· waits' : ''}
                  </span>
                  <div
                    className="fig"
                    style={{ fontSize: 31 * fs, fontWeight: 800, marginTop: 3 }}
                    data-testid={`set-${one ? 'axle' : s}-tie-rod`}
                  >
                    {l.words}
                  </div>
                  <div className="fig mut" style={{ fontSize: 20 * fs, fontWeight: 650 }}>
                    toe to {toe(s)}
                  </div>
                </div>
              </>
            )}
          </div>
        );
      })}
    </div>
  );
}
