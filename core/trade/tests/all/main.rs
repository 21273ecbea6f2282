//! Checks of the trade against drawn cars, brute force, trade tables and hidden cars.
//!
//! One binary for all of them: each more costs a link of the whole crate.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_docs)]

mod aims_apart;
mod at_the_gate;
mod bands;
mod bounded;
mod car_plan;
mod car_wear;
mod common;
mod corner_file_plan;
mod explains;
mod figure_fixtures;
mod fouls;
mod gates;
mod healthy_cars;
mod heights_again;
mod hidden;
mod jacked;
mod job;
mod judged;
mod kinematics_properties;
mod kits_and_sides;
mod knuckle_tilt;
mod ladder;
mod leave_what_is_in;
mod left_to_turn;
mod live_left;
mod made_parts;
mod memory;
mod mistakes;
mod most_caster;
mod moving;
mod odd;
mod on_the_way;
mod parts_bad_input;
mod plan_answer;
mod plan_checks;
mod plan_search;
mod plan_trade;
mod prove;
mod proved;
mod read_again;
mod reading_tables;
mod readings;
mod returned;
mod shop;
mod square;
mod stage;
mod suspicions;
mod take;
mod trade_checks;
mod tread_hostile;
mod turnable;
mod whole_car;
mod whole_search;
