//! The adapter's side: connects to anything that speaks the protocol.

use crate::protocol::{Command, Line, LineError};
use std::io::{BufRead, BufReader, Read, Write};
use std::net::{SocketAddr, TcpStream};
use std::time::{Duration, Instant};

/// Why a gauge did not answer.
#[derive(Debug, thiserror::Error)]
pub enum GaugeError {
    /// Nobody listens, or it went away.
    #[error("the gauge does not answer: {0}")]
    Socket(#[from] std::io::Error),
    /// It says something else.
    #[error("not a gauge: {0}")]
    Line(#[from] LineError),
    /// It would not.
    #[error("the gauge says no: {0}")]
    Refused(String),
}

/// A connection to a gauge.
#[derive(Debug)]
pub struct Gauge {
    reader: BufReader<TcpStream>,
    writer: TcpStream,
    /// What it said it is.
    pub hello: Line,
}

/// Longest wait for a line.
const PATIENCE: Duration = Duration::from_secs(2);

impl Gauge {
    /// Connects and is greeted.
    ///
    /// # Errors
    /// [`GaugeError`] within two seconds.
    pub fn connect(at: SocketAddr) -> Result<Self, GaugeError> {
        let writer = TcpStream::connect_timeout(&at, PATIENCE)?;
        writer.set_read_timeout(Some(PATIENCE))?;
        writer.set_write_timeout(Some(PATIENCE))?;
        let mut reader = BufReader::new(writer.try_clone()?);
        let hello = next(&mut reader)?;
        if !matches!(hello, Line::Hello { .. }) {
            return Err(GaugeError::Refused("no greeting".into()));
        }
        Ok(Self { reader, writer, hello })
    }

    /// The next line it says.
    ///
    /// # Errors
    /// [`GaugeError`] within two seconds.
    pub fn line(&mut self) -> Result<Line, GaugeError> {
        next(&mut self.reader)
    }

    /// Tells it something and waits for its answer.
    ///
    /// # Errors
    /// [`GaugeError::Refused`] with its reason.
    pub fn tell(&mut self, c: &Command) -> Result<(), GaugeError> {
        writeln!(self.writer, "{c}")?;
        let until = Instant::now() + PATIENCE;
        while Instant::now() < until {
            match self.line()? {
                Line::Ok => return Ok(()),
                Line::No(why) => return Err(GaugeError::Refused(why)),
                Line::Angle { .. } | Line::Hello { .. } => {}
            }
        }
        Err(GaugeError::Refused("no answer".into()))
    }
}

fn next(reader: &mut BufReader<TcpStream>) -> Result<Line, GaugeError> {
    let mut line = String::new();
    if reader.by_ref().take(400).read_line(&mut line)? == 0 {
        return Err(GaugeError::Socket(std::io::ErrorKind::UnexpectedEof.into()));
    }
    Ok(Line::parse(&line)?)
}
