//! The gauge over a real socket.
#![allow(clippy::unwrap_used, clippy::panic, missing_docs)]

use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_gauge::{
    Command, Gauge, GaugeError, GaugeFaults, GaugePlace, Line, Looking, SimGauge, SimulatedCar, serve,
};
use std::io::{Read, Write};
use std::net::{SocketAddr, TcpListener, TcpStream};

fn start() -> SocketAddr {
    let front =
        shipped_archetypes().unwrap().into_iter().find(|a| a.id == "half_ton_front").unwrap().geometry;
    let car = SimulatedCar { front, rear: None, camber_off_deg: [0.4, 0.0, 0.0, 0.0] };
    let faults = GaugeFaults { noise_deg: 0.0, drift_deg_min: 0.0, offset_deg: 0.0, floor_deg: 0.0 };
    let listener = TcpListener::bind("127.0.0.1:0").unwrap();
    let at = listener.local_addr().unwrap();
    std::thread::spawn(move || serve(&listener, SimGauge::new(car, faults, 1)));
    at
}

fn angle(g: &mut Gauge) -> (f64, bool) {
    loop {
        if let Line::Angle { deg, held, .. } = g.line().unwrap() {
            return (deg, held);
        }
    }
}

#[test]
fn it_greets_streams_and_does_as_it_is_told() {
    let at = start();
    let mut g = Gauge::connect(at).unwrap();
    assert!(matches!(g.hello, Line::Hello { simulated: true, .. }));
    let (straight, held) = angle(&mut g);
    assert!(!held);
    let out = GaugePlace { front: true, left: true, looking: Looking::Camber, steer_deg: 20.0, gain_mm: 0.0 };
    g.tell(&Command::Place(out)).unwrap();
    let (swung, _) = angle(&mut g);
    assert!(swung > straight + 0.5, "the outer swing leans the top out: {straight} {swung}");
    g.tell(&Command::Hold).unwrap();
    assert!(angle(&mut g).1);
    // A second tablet sees the same gauge.
    let mut other = Gauge::connect(at).unwrap();
    assert_eq!(angle(&mut other), (swung, true));
    let rear = GaugePlace { front: false, ..out };
    assert!(matches!(g.tell(&Command::Place(rear)), Err(GaugeError::Refused(_))));
}

#[test]
fn nonsense_is_answered_and_an_endless_line_is_hung_up_on() {
    let at = start();
    let mut s = TcpStream::connect(at).unwrap();
    s.write_all(b"fly\n").unwrap();
    let mut text = [0u8; 400];
    let mut said = String::new();
    while !said.contains("no ") {
        let n = s.read(&mut text).unwrap();
        assert!(n > 0);
        said.push_str(&String::from_utf8_lossy(&text[..n]));
    }
    assert!(said.contains("zero, unzero, hold"), "{said}");
    let mut s = TcpStream::connect(at).unwrap();
    let _ = s.write_all(&[b'x'; 3000]);
    let mut rest = Vec::new();
    // Ends: the gauge closes the line instead of filling its memory.
    let _ = s.read_to_end(&mut rest);
    assert!(Gauge::connect(at).is_ok());
    let nobody = TcpListener::bind("127.0.0.1:0").unwrap().local_addr().unwrap();
    assert!(matches!(Gauge::connect(nobody), Err(GaugeError::Socket(_))));
}
