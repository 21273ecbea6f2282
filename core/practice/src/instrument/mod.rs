//! What each method's tool shows of a car as it stands: every entry as somebody would read it.

mod across;
mod camber;
mod caster;
mod plain;
mod toe;

use crate::hand::{Face, Hand, Shown};
use crate::standing::{Standing, WheelStands};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::reading::{Method, MethodInfo, Place, Quantity, ReadAxle, ReadSide};
use nalgebra::Vector3;

/// A look through one tool at one place.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Look<'a> {
    /// The tool, and how well it holds.
    pub method: &'a MethodInfo,
    /// Where.
    pub place: Place,
    /// How far the wheel was rolled from where its valve was first, degrees.
    pub rolled_deg: f64,
    /// Swings of a sweep as intended, degrees, left positive.
    pub swings_deg: [f64; 2],
}

impl<'a> Look<'a> {
    /// A look with the wheel where it stopped, and the usual swings.
    #[must_use]
    pub fn at(method: &'a MethodInfo, place: Place) -> Self {
        Self { method, place, rolled_deg: 0.0, swings_deg: [20.0, -20.0] }
    }
}

/// How the tools are.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Tools {
    /// What the angle gauge shows on a level surface, degrees.
    pub zero_off_deg: f64,
    /// It was zeroed on a bar over this floor.
    pub zeroed_on_floor: bool,
    /// What the rim is across was measured, not read off its stamp.
    pub lip_measured: bool,
    /// The tyre's bulge at the touching point was measured.
    pub bulge_measured: bool,
    /// The string runs from the rear wheels, not beside the body's centre line.
    pub strung_from_rear: bool,
    /// It is said so, with both tracks and the wheelbase.
    pub strung_said: bool,
    /// What is missing of a swing that the plates show, as a part of it.
    pub plates_slip: f64,
}

/// Why nothing is shown.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum Blind {
    /// This is not read there.
    #[error("this is not read there")]
    NotThere,
    /// This is worked out of other readings, not looked at.
    #[error("this is worked out of other readings")]
    WorkedOut,
}

/// A look under way.
struct Bench<'a> {
    look: Look<'a>,
    car: &'a Standing,
    tools: &'a Tools,
    hand: &'a mut Hand,
    out: Vec<Shown>,
}

impl Bench<'_> {
    /// What the method states of an entry.
    fn sigma(&self, name: &str) -> f64 {
        self.look.method.entries.iter().find(|e| e.name == name).map_or(0.0, |e| e.sigma)
    }

    /// An entry read off a scale.
    fn reads(&mut self, name: &str, truth: f64, face: Face) {
        let sigma = self.sigma(name);
        let at = self.hand.reads(truth, sigma, face);
        self.out.push(Shown { name: name.into(), face, at, word: None });
    }

    /// An entry that is laid out or measured beforehand, to the line.
    fn laid(&mut self, name: &str, truth: f64, face: Face) {
        self.out.push(Shown { name: name.into(), face, at: truth, word: None });
    }

    /// An entry that is seen, felt or said.
    fn says(&mut self, name: &str, word: &str) {
        self.out.push(Shown { name: name.into(), face: Face::Word, at: 0.0, word: Some(word.into()) });
    }

    fn axle(&self) -> Result<Axle, Blind> {
        match self.look.place.axle {
            ReadAxle::Front => Ok(Axle::Front),
            ReadAxle::Rear => Ok(Axle::Rear),
            ReadAxle::Both => Err(Blind::NotThere),
        }
    }

    fn side(&self) -> Result<Side, Blind> {
        match self.look.place.side {
            ReadSide::Left => Ok(Side::Left),
            ReadSide::Right => Ok(Side::Right),
            ReadSide::Both => Err(Blind::NotThere),
        }
    }

    fn wheel(&self) -> Result<(&WheelStands, Vector3<f64>), Blind> {
        let (axle, side) = (self.axle()?, self.side()?);
        Ok((self.car.wheel(axle, side), self.car.up(axle, side)))
    }

    /// Both wheels of the axle.
    fn pair(&self) -> Result<(&WheelStands, &WheelStands), Blind> {
        let axle = self.axle()?;
        Ok((self.car.wheel(axle, Side::Left), self.car.wheel(axle, Side::Right)))
    }
}

/// What is shown, in the order of the method's entries.
///
/// # Errors
/// [`Blind`] where the method is not read at this place, or of nothing.
pub fn shows(look: Look<'_>, car: &Standing, tools: &Tools, hand: &mut Hand) -> Result<Vec<Shown>, Blind> {
    // What is measured for the prepare list has no place of its own on the car.
    if !look.method.bench_only && !look.place.fits(look.method.quantity) {
        return Err(Blind::NotThere);
    }
    let mut b = Bench { look, car, tools, hand, out: Vec::new() };
    match look.method.id {
        Method::HeightHub | Method::HeightFloor | Method::HeightFrame => plain::height(&mut b),
        Method::CamberGauge | Method::CamberBar => camber::gauge(&mut b),
        Method::CamberOffsets | Method::CamberLaser => camber::line(&mut b),
        Method::CamberGap => camber::gap(&mut b),
        Method::CamberCalliper => camber::calliper(&mut b),
        Method::CamberForm => camber::form(&mut b),
        Method::CamberRunout => camber::half_turn(&mut b),
        Method::CamberLevel => camber::level(&mut b),
        Method::CasterSweep => caster::sweep(&mut b),
        Method::CasterScale => caster::scale(&mut b),
        Method::CasterJointLine => caster::joint_line(&mut b),
        Method::ToeDistance | Method::ToeScribed => toe::tape(&mut b),
        Method::ToeBars | Method::ToePlates => toe::bars(&mut b),
        Method::ToeRimGauge => toe::rim_gauge(&mut b),
        Method::ToeString => toe::string(&mut b),
        Method::ToeConvert => toe::gauge(&mut b),
        Method::RimRunout => plain::dial(&mut b),
        Method::TreadDepth => plain::tread(&mut b),
        Method::Pressure => plain::pressure(&mut b),
        Method::RimCircle => plain::stamp(&mut b),
        Method::AxleCentring => across::centring(&mut b),
        Method::Wheelbase => across::wheelbase(&mut b),
        Method::Diagonal => across::diagonal(&mut b),
        Method::SetBack => across::set_back(&mut b),
        Method::FloorSlope => across::floor(&mut b),
        Method::Thrust => Err(Blind::WorkedOut),
    }?;
    Ok(b.out)
}

/// What a quantity is in truth, in its own unit.
///
/// # Errors
/// [`Blind`] where there is no such thing at the place.
pub fn truth_of(q: Quantity, place: Place, car: &Standing) -> Result<f64, Blind> {
    let axle = || place.one_axle().ok_or(Blind::NotThere);
    let side = || place.one_side().ok_or(Blind::NotThere);
    let wheel = || Ok::<_, Blind>(car.wheel(axle()?, side()?));
    Ok(match q {
        Quantity::Height => wheel()?.height_mm,
        Quantity::FloorToArch => wheel()?.height_mm + wheel()?.hub_mm,
        Quantity::FloorToFrame => wheel()?.frame_mm,
        Quantity::Camber => wheel()?.camber_deg,
        Quantity::Caster => wheel()?.caster_deg,
        Quantity::Toe => wheel()?.toe_deg,
        Quantity::TotalToe => {
            Side::BOTH.iter().map(|s| Ok(car.wheel(axle()?, *s).toe_deg)).sum::<Result<f64, Blind>>()?
        }
        Quantity::RimRunout => wheel()?.lip_mm * wheel()?.run_out.deg.abs().to_radians().sin(),
        Quantity::TreadDepth => wheel()?.tread_mm.iter().copied().fold(f64::INFINITY, f64::min),
        Quantity::Pressure => wheel()?.pressure_kpa,
        Quantity::RimCircle => wheel()?.lip_mm,
        Quantity::AxleOffset => car.right_of_body_mm[axle()?],
        Quantity::Wheelbase => car.wheelbase_mm[side()?],
        Quantity::Diagonal => car.diagonal_mm[side()?],
        Quantity::SetBack => car.to_front_hub_mm[Side::Left] - car.to_front_hub_mm[Side::Right],
        Quantity::Thrust => car.thrust_deg(),
        Quantity::FloorSlope => match place.one_axle() {
            Some(axle) => car.floor.under(axle, car.track_mm[axle]),
            None => car.floor.along_deg,
        },
    })
}
