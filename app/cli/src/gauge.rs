//! `gauge`: a digital angle gauge on a simulated car, as a process of its own.

use crate::{Failure, headless};
use bold_stance_gauge::{GaugeFaults, SimGauge, SimulatedCar, serve};
use bold_stance_kinematics::geometry::Geometry;
use bold_stance_kinematics::linkage::read_geometry;
use bold_stance_server::is_loopback_host;
use bold_stance_store::demo;
use clap::Args;
use std::net::{SocketAddr, TcpListener};
use std::path::PathBuf;

/// What the gauge is held on, and what is wrong with it.
#[derive(Args)]
pub struct GaugeArgs {
    /// Local address to serve the line protocol on (docs/GAUGE.md)
    #[arg(long, default_value = "127.0.0.1:7717")]
    listen: SocketAddr,
    /// Front geometry file; the demo shop's first car without one
    #[arg(long)]
    front: Option<PathBuf>,
    /// Rear geometry file
    #[arg(long)]
    rear: Option<PathBuf>,
    /// Standard deviation of one angle, degrees
    #[arg(long, default_value_t = 0.04)]
    noise: f64,
    /// Drift, degrees a minute
    #[arg(long, default_value_t = 0.01, allow_hyphen_values = true)]
    drift: f64,
    /// Slope of the floor, falls to the left, degrees
    #[arg(long, default_value_t = 0.2, allow_hyphen_values = true)]
    floor: f64,
}

/// Runs until it is stopped.
pub fn gauge(a: &GaugeArgs) -> Result<(), Failure> {
    if !is_loopback_host(&a.listen.to_string()) {
        return Err(Failure::Input(format!(
            "--listen: {} is not this machine; a loopback address",
            a.listen
        )));
    }
    for (name, v, high) in [("noise", a.noise, 2.0), ("drift", a.drift, 5.0), ("floor", a.floor, 5.0)] {
        let low = if name == "noise" { 0.0 } else { -high };
        if !v.is_finite() || v < low || v > high {
            return Err(Failure::Input(format!("--{name}: {v}; a number from {low} to {high}")));
        }
    }
    let geometry = |p: &PathBuf| -> Result<Geometry, Failure> { Ok(read_geometry(&headless::read(p)?)?) };
    let car = match &a.front {
        Some(front) => SimulatedCar {
            front: geometry(front)?,
            rear: a.rear.as_ref().map(geometry).transpose()?,
            camber_off_deg: [0.0; 4],
        },
        None => {
            let (front, rear) = demo::first_axles().map_err(|e| Failure::System(e.to_string()))?;
            // As the demo job says that it came in.
            SimulatedCar { front, rear, camber_off_deg: [-0.15, 0.0, -0.1, 0.0] }
        }
    };
    let faults =
        GaugeFaults { noise_deg: a.noise, drift_deg_min: a.drift, offset_deg: 0.0, floor_deg: a.floor };
    let listener = TcpListener::bind(a.listen).map_err(|e| Failure::System(format!("--listen: {e}")))?;
    let at = listener.local_addr().map_err(|e| Failure::System(e.to_string()))?;
    println!("Simulated gauge is at {at}");
    serve(&listener, SimGauge::new(car, faults, 20_261_123)).map_err(|e| Failure::System(e.to_string()))
}
