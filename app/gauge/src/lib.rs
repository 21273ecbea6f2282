//! An open line protocol for digital angle gauges (docs/GAUGE.md), and a gauge on a simulated car that
//! speaks it. A real gauge's adapter is anything that serves the same lines on a local socket.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

mod client;
mod protocol;
mod serve;
mod sim;

pub use client::{Gauge, GaugeError};
pub use protocol::{Command, GaugePlace, Line, LineError, Looking, VERSION};
pub use serve::{RATE_HZ, serve};
pub use sim::{GaugeFaults, SimGauge, SimulatedCar};
