//! Jobs done through the real interface: headless Chromium, the real server, a database of its own for each. One program: a
//! machine with two cores does two jobs at a time.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_docs)]

mod access;
mod as_found;
mod as_found_axles;
mod by_keys;
mod car_sheet;
mod demo_job;
mod desk;
mod from_nothing;
mod harness;
mod in_hand;
mod jig;
mod left_to_turn;
mod no_radio;
mod phone;
mod plan_car;
mod plan_sets;
mod read_visit;
mod to_the_end;
mod trust;
mod wear_bench;
mod whole_car;
