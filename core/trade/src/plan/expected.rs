//! Angles that nobody read: what the model itself expects of them, how wide that is, and what one reading would buy.

use super::angle::AngleName;
use super::result::{ExpectedAngle, SidePlan};
use super::work::Work;
use bold_stance_car::fit::Sigmas;
use bold_stance_car::vehicle::Sides;
use bold_stance_units::Sigma;
use bold_stance_units::said::said;

/// Standard deviation of a reading as a shop takes it, the mean of three, degrees (from the methods' own entries).
pub const AS_READ: Sigmas = Sigmas { camber_deg: 0.06, caster_deg: 0.16, toe_deg: 0.03 };

fn pick(angle: AngleName, s: &Sigmas) -> f64 {
    match angle {
        AngleName::Camber | AngleName::CrossCamber => s.camber_deg,
        AngleName::Caster | AngleName::CrossCaster => s.caster_deg,
        AngleName::Toe => s.toe_deg,
    }
}

/// Every angle of the axle that was not read on both wheels. Reading it takes what it was not known by out of the band:
/// an angle as found passes into the angle as set one to one, to first order.
pub(crate) fn expected(work: &Work<'_>, left: &SidePlan, right: &SidePlan) -> Vec<ExpectedAngle> {
    let input = work.input;
    let steered = [AngleName::Camber, AngleName::Caster, AngleName::Toe];
    let of = |angle: AngleName, p: &SidePlan| match angle {
        AngleName::Camber | AngleName::CrossCamber => (p.set.camber_deg, p.doubt.camber_deg),
        AngleName::Caster | AngleName::CrossCaster => (p.set.caster_deg, p.doubt.caster_deg),
        AngleName::Toe => (p.set.toe_deg, p.doubt.toe_deg),
    };
    steered
        .into_iter()
        .filter(|a| (input.steered() || *a != AngleName::Caster) && !input.is_read(*a))
        .map(|angle| {
            let (l, r) = (of(angle, left), of(angle, right));
            let (band_deg, sigma) =
                if l.1 >= r.1 { (l.1, &input.left.sigma) } else { (r.1, &input.right.sigma) };
            let [was, now] = [pick(angle, sigma), pick(angle, &AS_READ)].map(|s| Sigma(s).half_width().0);
            let left_over = (band_deg * band_deg - was * was).max(0.0);
            let band_if_read_deg = (left_over + now * now).sqrt().min(band_deg);
            let words = said("expected-angle")
                .word("axle", input.geometry.axle.word())
                .word("angle", angle.word())
                .deg("left", l.0, 1)
                .deg("right", r.0, 1)
                .deg("band", band_deg, 1)
                .deg("then", band_if_read_deg, 1);
            ExpectedAngle {
                angle,
                value_deg: Sides { left: l.0, right: r.0 },
                band_deg,
                band_if_read_deg,
                words,
            }
        })
        .collect()
}
