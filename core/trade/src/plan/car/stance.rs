//! The heights a car stands at, hub to arch, and the rake they make.

use bold_stance_car::vehicle::Axles;
use serde::{Deserialize, Serialize};

/// How a car stands, as a job tells it.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct Stands {
    /// Mean height of each axle as found, hub centre to arch lip, mm; none where nobody knows it.
    pub mm: Axles<Option<f64>>,
    /// Loaded radius of each axle's tyres as found, mm; none where nobody knows it.
    pub radius_mm: Axles<Option<f64>>,
    /// Floor to frame of each axle as found, mm; none where nobody taped it.
    pub frame_mm: Axles<Option<f64>>,
}

/// Heights of a car and the rake they make.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CarStance {
    /// Mean height of each axle, hub centre to arch lip, mm; none where it is not known.
    pub mm: Axles<Option<f64>>,
    /// Nose down, degrees: how much higher the rear arch stands over the floor than the front one; none until both are known.
    pub rake_deg: Option<f64>,
}

impl Stands {
    /// The car with each axle higher by `by` on tyres that gain `tyres` of loaded radius, mm. Rake is
    /// `atan((rear − front) / wheelbase)` of the arches over the floor; where a radius is not known the tyres count as equal.
    #[must_use]
    pub fn raised(&self, by: Axles<f64>, tyres: Axles<f64>, wheelbase_mm: f64) -> CarStance {
        let mm =
            Axles { front: self.mm.front.map(|h| h + by.front), rear: self.mm.rear.map(|h| h + by.rear) };
        let radii = match (self.radius_mm.front, self.radius_mm.rear) {
            (Some(front), Some(rear)) => Axles { front, rear },
            _ => Axles::default(),
        };
        let over_floor = Axles {
            front: mm.front.map(|h| h + radii.front + tyres.front),
            rear: mm.rear.map(|h| h + radii.rear + tyres.rear),
        };
        let rake = |front: f64, rear: f64| ((rear - front) / wheelbase_mm).atan().to_degrees();
        CarStance { mm, rake_deg: over_floor.front.zip(over_floor.rear).map(|(f, r)| rake(f, r)) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// 73 mm over 3220 mm: atan 0.022 671 = 1.298 8° (calculator).
    #[test]
    fn rake_is_the_rise_of_the_arches_over_the_floor() {
        let stands = Stands {
            mm: Axles { front: Some(498.0), rear: Some(571.0) },
            radius_mm: Axles { front: Some(402.0), rear: Some(402.0) },
            ..Stands::default()
        };
        let flat = Axles::default();
        let rake = stands.raised(flat, flat, 3220.0).rake_deg.unwrap();
        assert!((rake - 1.2988).abs() < 5e-4, "{rake}");
        let lifted = stands.raised(Axles { front: 73.0, rear: 0.0 }, flat, 3220.0);
        assert_eq!((lifted.mm.front, lifted.rake_deg), (Some(571.0), Some(0.0)));
        // Taller tyres in front lift that arch as well as springs do; hub to arch stays.
        let tyres = stands.raised(flat, Axles { front: 73.0, rear: 0.0 }, 3220.0);
        assert_eq!((tyres.mm.front, tyres.rake_deg), (Some(498.0), Some(0.0)));
        // Half a pair of radii says nothing.
        let half = Stands { radius_mm: Axles { front: Some(402.0), rear: None }, ..stands };
        assert_eq!(half.raised(flat, flat, 3220.0).rake_deg, Some(rake));
        let unread = Stands { mm: Axles { front: None, rear: Some(571.0) }, ..stands };
        assert_eq!(unread.raised(flat, flat, 3220.0).rake_deg, None);
    }
}
