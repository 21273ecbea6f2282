// One tyre's section in two states, the distance under the hand, and what eats it.
import { HowTo } from '../../ui/HowTo';
import { PrintTyres } from './PrintTyres';
import { PrintHead } from '../../shell/PrintHead';
import { Fold } from '../../ui/Fold';
import { ChipButton } from '../../ui/Press';
import { Button, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import type { CarWear, SceneWear, Ticket } from '../../api/client';
import { TreadSection } from '../../figures/TreadSection';
import { Glyph } from '../../ui/glyphs';
import { NotTheOne } from '../../shell/ChoosePlan';
import { useBench } from '../../shell/ticket';
import { useSettings } from '../../ui/settings';
import { far, farUnit, measure, unitName } from '../../units/measure';
import { angle, num } from '../../units/print';
import { Causes } from './Causes';
import {
  capital,
  firstDone,
  leadOf,
  meanOf,
  placeName,
  range,
  sideOf,
  tooClose,
  wearFacts,
  type Place,
  type TyreForecast,
} from '../../shell/tread';
import { ComesFirst } from './ComesFirst';
import { FourTyres } from './FourTyres';
import { Levers } from './Levers';
import { Limit } from './Limit';
import { Scrubber } from './Scrubber';
import { TyreFactsDialog } from './TyreFactsDialog';

/** A state in a word or two, for the road. */
const shortName = (s: SceneWear) =>
  s.id === 'found'
    ? 'as found'
    : s.id === 'unset'
      ? 'not set'
      : s.title.length > 22
        ? `${s.title.slice(0, 21)}…`
        : s.title;

const uses: Record<string, string> = {
  highway: 'motorway use',
  mixed: 'mixed roads',
  corner_heavy: 'winding roads',
  trail: 'trail and gravel',
};

/** The mix of use the ratio holds for: on another the same change may be worth the reverse. */
function useWord(t: Ticket): string {
  const mix = wearFacts(t).uses ?? [];
  if (!mix.length) return uses[t.vehicle.facts.use] ?? t.vehicle.facts.use;
  const all = mix.reduce((a, u) => a + u.share, 0) || 1;
  return mix.map((u) => `${num((100 * u.share) / all)} % ${uses[u.use] ?? u.use}`).join(', ');
}

interface Props {
  modes: React.ReactNode;
  wear: CarWear;
  tyre: TyreForecast;
  pick: (p: Place) => void;
  km: number;
  setKm: (k: number) => void;
  other: string;
  setOther: (id: string) => void;
}

export function TreadPane({ modes, wear, tyre, pick, km, setKm, other, setOther }: Props) {
  const bench = useBench();
  const { ticket, draft, plan, answer } = bench;
  const on = tyre.place.endsWith('front') ? 'front' : 'rear';
  // Caster as good as does not wear a tyre.
  const unread = (answer?.verdict.not_read ?? []).filter((u) => u.axle === on && u.angle !== 'caster');
  const { search } = useLocation();
  const { units } = useSettings();
  const [aboveId, setAbove] = useState(other ? 'other' : 'found');
  const [whole, setWhole] = useState(false);
  const [facts, setFacts] = useState(false);
  const limit = draft!.limit_mm;
  const side = sideOf(tyre.place);
  const axle = tyre.place.endsWith('front') ? 'front' : 'rear';
  const lead = leadOf(tyre);
  const above = tyre.scenes.find((s) => s.id === aboveId) ?? tyre.scenes[0]!;
  const q = above.ratio_to_lead;
  const close = tooClose(q);
  const spread = (t: SceneWear): [number, number] => {
    const m = Math.max(1, t.band_km.median);
    return [Math.max(0.05, t.band_km.low / m), t.band_km.high / m];
  };
  const ends = wear.tyres.flatMap((t) => [leadOf(t).band_km.high, (t.scenes[1] ?? leadOf(t)).band_km.high]);
  const scale = Math.min(160000, Math.max(40000, Math.ceil(Math.max(...ends) / 20000) * 20000));
  const first = firstDone(wear);
  const where = (s: SceneWear) => (s.worst === 'even' ? 'The whole width' : capital(s.worst_words));
  const others = ticket.plans.filter((p) => p.id !== plan?.id);
  const mix = lead.setups.length > 1;
  return (
    <main className="main wear-main tread-main">
      <PrintHead title="Tread forecast" plans={plan ? [plan.name] : []} />
      <PrintTyres wear={wear} />
      <section
        className="pane"
        data-pane="Tread"
        style={{ display: 'flex', flexDirection: 'column', minWidth: 0, overflowY: 'auto' }}
      >
        <NotTheOne bench={bench} />
        <div style={{ padding: '7px 20px 6px' }}>
          <ComesFirst first={wear.first} />
          {unread.length > 0 && (
            <p className="word small" data-testid="wear-expected">
              <Glyph name="unread" size={16} />
              Not read: {unread.map((u) => `${u.axle} ${u.angle}`).join(', ')}. The distance stands on what is
              expected of them.
            </p>
          )}
          {tyre.done ? (
            <h1 className="wear-head" data-testid="wear-statement">
              <span className="plate" style={{ fontSize: 34 }}>
                <Glyph name="short" size={26} /> New tyres first: these are at or under{' '}
                {measure('tread', limit, units)}
              </span>
              <span className="then">
                New ones: {where(lead)} reaches the limit at {farUnit(lead.band_km.median, units)}{' '}
                <span className="band">{range(lead.band_km, units)}</span>
              </span>
            </h1>
          ) : (
            <h1 className="wear-head" data-testid="wear-statement">
              {above !== lead && (
                <span className="ratio" data-testid="wear-ratio">
                  {close ? (
                    <>Too close to call, ×{num(q.ratio, 2)}</>
                  ) : (
                    <>
                      {q.ratio >= 1 ? 'Buys' : 'Costs'} distance ×{num(q.ratio, 2)}
                    </>
                  )}{' '}
                  <span className="band">
                    ({num(q.low, 2)}–{num(q.high, 2)}) against {shortName(above)}, {useWord(ticket)}
                  </span>
                </span>
              )}
              <span className={above === lead ? undefined : 'then'}>
                {where(lead)} reaches the limit at {farUnit(lead.band_km.median, units)}{' '}
                <span className="band">{range(lead.band_km, units)}</span>
              </span>
            </h1>
          )}
          <p className="mut" style={{ marginTop: 2 }}>
            {capital(placeName(tyre.place))}, {lead.title}
            {tyre.learned ? `, tyre ${tyre.learned.mark}, from now` : ''}.{' '}
            {above !== lead && (
              <>
                {capital(above.title)}: {above.worst === 'even' ? 'the whole width' : above.worst_words} at{' '}
                {farUnit(above.band_km.median, units)}.
              </>
            )}
            {first && first.place !== tyre.place && ` First to go: ${placeName(first.place)}.`}
          </p>
        </div>
        <div className="slate drawn" style={{ padding: '4px 4px 0' }} data-testid="tread">
          <HowTo of="tread" />
          {above !== lead && (
            <>
              <TreadSection
                side={side}
                axle={axle}
                rate={above.rate_mm_per_1000km}
                depth={tyre.depth_now_mm}
                limit={limit}
                km={km}
                spread={spread(above)}
                label={above.title}
                units={units}
              />
              <div style={{ height: 1, background: 'var(--slateline)', margin: '2px 0 8px' }} />
            </>
          )}
          <TreadSection
            side={side}
            axle={axle}
            rate={lead.rate_mm_per_1000km}
            depth={tyre.depth_now_mm}
            limit={limit}
            km={km}
            spread={spread(lead)}
            label={lead.title}
            units={units}
          />
        </div>
        <Scrubber
          km={km}
          max={scale}
          set={setKm}
          marks={[
            ...(above === lead ? [] : [{ t: above, word: shortName(above), dash: true }]),
            { t: lead, word: shortName(lead), dash: false },
          ]}
          side={side}
        />
        <div style={{ marginTop: 'auto' }}>
          <FourTyres wear={wear} place={tyre.place} pick={pick} km={km} />
        </div>
      </section>
      <section className="pane wear-side" data-pane="Reasons" aria-label="Reasons">
        {modes}
        <div className="show-at">
          <h3>Show tread at</h3>
          <span className="fig" data-testid="wear-km">
            {km < 10 ? '0' : far(km, units)}
            <small> {unitName('distance', units)}</small>
          </span>
        </div>
        <TextField
          select
          size="small"
          label="Against"
          value={above.id}
          onChange={(e) => {
            const v = e.target.value;
            if (v.startsWith('plan:')) {
              setOther(v.slice(5));
              setAbove('other');
            } else setAbove(v);
          }}
          slotProps={{ htmlInput: { 'data-testid': 'wear-against' } }}
        >
          {tyre.scenes.map((s) => (
            <MenuItem key={s.id} value={s.id}>
              {s.id === 'other'
                ? `Plan: ${s.title}`
                : s === lead
                  ? `Nothing, ${s.title} alone`
                  : capital(s.title)}
            </MenuItem>
          ))}
          {others
            .filter((p) => p.id !== other || above.id !== 'other')
            .map((p) => (
              <MenuItem key={p.id} value={`plan:${p.id}`}>
                Plan: {p.name}
              </MenuItem>
            ))}
        </TextField>
        <div className="two-col">
          <h3>What eats {whole ? 'the tread' : lead.worst === 'even' ? 'it' : `the ${lead.worst_words}`}</h3>
          <ChipButton
            size="small"
            aria-pressed={whole}
            onClick={() => setWhole(!whole)}
            data-testid="wear-whole"
          >
            whole width
          </ChipButton>
        </div>
        <Causes title={capital(lead.title)} t={lead} id="s" whole={whole} />
        {above !== lead && (
          <Fold className="more" testid="wear-above" words={<>The same {shortName(above)}</>}>
            <Causes title={capital(above.title)} t={above} id="u" whole={whole} />
          </Fold>
        )}
        <Levers tyre={tyre} />
        {mix && (
          <p className="small" data-testid="wear-mix">
            <b>Mix of heights:</b>{' '}
            {wearFacts(ticket)
              .heights?.map((h) => `${h.state} ${num(h.share)} %`)
              .join(', ')}
            . Camber {angle(meanOf(lead, 'camber_deg'), units.angle)} on the whole.
          </p>
        )}
        <Limit start={tyre.learned ? undefined : ticket.vehicle.facts.tread_depth_mm} />
        {(lead.feather_words || lead.irregular !== 'low' || lead.outside) && (
          <div className="watch-note" data-testid="wear-watch">
            <Glyph name="watch" size={22} />
            <p className="small">
              {lead.feather_words && <>{lead.feather_words} </>}
              {lead.irregular !== 'low' && (
                <>
                  <b>Irregular wear: {lead.irregular}.</b>{' '}
                  {lead.irregular_parts.map((p) => `${p.cause} ${Math.round(p.points)}`).join(', ')}{' '}
                  points.{' '}
                </>
              )}
              {lead.outside &&
                'Outside what the model was set for: past −5° camber, 1° toe, or driven under 75 % of the placard pressure.'}
            </p>
          </div>
        )}
        <div className="watch-note">
          <Glyph name="watch" size={22} />
          <p className="small">
            {tyre.learned ? (
              tyre.learned.words
            ) : (
              <>
                <b>Doubt is wide.</b> No depth read on this tyre yet. Three grooves narrow it.
              </>
            )}{' '}
            {wear.notes[0]} {wear.notes[1]}
          </p>
        </div>
        <div className="side-foot">
          <Button component={Link} to={`../set${search}`} variant="contained" sx={{ flex: 1 }}>
            {answer?.verdict.reached ? 'Set it' : 'Open sheet'}
          </Button>
          <Button variant="outlined" onClick={() => window.print()} data-testid="wear-print">
            Print
          </Button>
          <Button variant="outlined" onClick={() => setFacts(true)} data-testid="tyre-facts">
            Tyres, use
          </Button>
        </div>
        {facts && <TyreFactsDialog heights={wear.heights} close={() => setFacts(false)} />}
      </section>
    </main>
  );
}
