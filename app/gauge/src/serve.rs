//! The simulated gauge on a local socket: every connection is greeted, then told the angle ten times a second.

use crate::protocol::Command;
use crate::sim::SimGauge;
use std::io::{BufRead, BufReader, ErrorKind, Read, Write};
use std::net::{TcpListener, TcpStream};
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, Instant};

/// Angles a second.
pub const RATE_HZ: f64 = 10.0;
/// Most connections at a time.
const MOST: usize = 16;

/// Serves until the listener fails. One gauge, any number of listeners: all see the same needle.
///
/// # Errors
/// When the listener cannot accept any more.
pub fn serve(listener: &TcpListener, gauge: SimGauge) -> std::io::Result<()> {
    let gauge = Arc::new(Mutex::new((gauge, Instant::now())));
    let places = Arc::new(());
    loop {
        let (stream, _) = listener.accept()?;
        if Arc::strong_count(&places) > MOST {
            continue;
        }
        let (gauge, place) = (Arc::clone(&gauge), Arc::clone(&places));
        std::thread::spawn(move || {
            // A connection that goes away is no fault of the gauge.
            let _ = attend(stream, &gauge);
            drop(place);
        });
    }
}

type Shared = Mutex<(SimGauge, Instant)>;

fn attend(mut stream: TcpStream, gauge: &Shared) -> std::io::Result<()> {
    let held = |g: &Shared| g.lock().unwrap_or_else(PoisonError::into_inner).0.hello();
    writeln!(stream, "{}", held(gauge))?;
    stream.set_write_timeout(Some(Duration::from_secs(2)))?;
    stream.set_read_timeout(Some(Duration::from_secs_f64(1.0 / RATE_HZ)))?;
    let mut reader = BufReader::new(stream.try_clone()?);
    let mut line = String::new();
    loop {
        match reader.by_ref().take(400).read_line(&mut line) {
            Ok(0) => return Ok(()),
            Ok(_) if line.ends_with('\n') => {
                let answer = match Command::parse(&line) {
                    Ok(c) => gauge.lock().unwrap_or_else(PoisonError::into_inner).0.told(&c).to_string(),
                    Err(e) => format!("no {e}"),
                };
                writeln!(stream, "{answer}")?;
                line.clear();
            }
            // A line without an end that fills the buffer: not this protocol.
            Ok(_) if line.len() >= 400 => return Ok(()),
            Ok(_) => {}
            Err(e) if matches!(e.kind(), ErrorKind::WouldBlock | ErrorKind::TimedOut) => {
                let shown = {
                    let mut g = gauge.lock().unwrap_or_else(PoisonError::into_inner);
                    let dt = g.1.elapsed().as_secs_f64();
                    g.1 = Instant::now();
                    g.0.tick(dt)
                };
                writeln!(stream, "{shown}")?;
            }
            Err(e) => return Err(e),
        }
    }
}
