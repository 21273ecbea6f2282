//! What people write and read: lengths in mm or inch fractions, angles in degrees or degrees-minutes, masses, pressures; what
//! is said, as data; faults by field; text of tables.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

mod angle;
pub mod csv_text;
mod length;
mod mass;
mod number;
pub mod numbers;
mod pressure;
pub mod problem;
mod road;
pub mod said;
mod sure;

pub use angle::{parse_angle_deg, print_degrees, print_minutes};
pub use length::{LengthUnit, MM_PER_INCH, parse_length_mm, print_inches, print_mm};
pub use mass::{KG_PER_LB, KG_PER_LITRE_OF_FUEL, parse_fuel_kg, parse_mass_kg};
pub use number::{both_readings, parse_count, parse_number};
pub use pressure::{KPA_PER_PSI, parse_pressure_kpa};
pub use road::{DistanceUnit, KM_PER_MILE, MM_PER_32ND, TreadUnit, in_unit, told_in};
pub use sure::{HalfWidth, Sigma};
