//! Mistakes of the trade: the one that has no other test, and that the table of all twenty is held to its tests.

use crate::shop::Shop;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_trade::sheet::{StepId, StepKind};
use bold_stance_words::English;
use std::path::Path;

#[test]
fn rubber_is_tightened_at_the_height_that_was_read_after_everything_is_turned() {
    let shop = Shop::new();
    let steps = shop.sheet().steps;
    let at = |id: StepId| steps.iter().position(|s| s.id == id);
    let tighten = at(StepId::Tighten).unwrap();
    assert!(at(StepId::Settled).unwrap() < tighten, "heights first");
    for axle in [Axle::Front, Axle::Rear] {
        for step in [StepId::Arms(axle), StepId::Toe(axle), StepId::Read(axle)] {
            assert!(at(step).is_none_or(|i| i < tighten));
        }
    }
    let step = &steps[tighten];
    assert!(step.kind == StepKind::Step && step.title.en().contains("ride height"), "{}", step.title.en());
    assert!(step.detail.en().contains("on the ground"), "{}", step.detail.en());
    assert!(!step.cautions.is_empty());
    // Nothing is turned between it and the last look.
    assert!(steps[tighten + 1..].iter().all(|s| s.kind == StepKind::Gate && s.orders.is_empty()));
}

#[test]
fn every_mistake_of_the_table_has_its_test() {
    let root = Path::new(env!("CARGO_MANIFEST_DIR"));
    let table = std::fs::read_to_string(root.join("../../docs/MISTAKES.md")).unwrap();
    let rows: Vec<&str> = table
        .lines()
        .filter(|l| l.trim_start_matches("| ").chars().next().is_some_and(|c| c.is_ascii_digit()))
        .collect();
    assert_eq!(rows.len(), 20);
    for row in rows {
        let name = row.split('`').nth(1).unwrap_or_else(|| panic!("no test in {row}"));
        let (file, test) = name.split_once("::").unwrap();
        let source = std::fs::read_to_string(root.join(format!("tests/all/{file}.rs"))).unwrap();
        let at = source.find(&format!("fn {test}()")).unwrap_or_else(|| panic!("no {name}"));
        assert!(source[..at].trim_end().ends_with("#[test]"), "{name} does not run");
    }
}
