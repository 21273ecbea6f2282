//! The command line and the server over HTTP, by the binary itself.
//!
//! One binary for all of them: each more costs a link of the whole crate.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_docs)]

mod browser;
mod command_line;
mod desk_http;
mod http;
mod layouts;
mod lost_answers;
mod notes_http;
mod offers_http;
mod plan_http;
mod robust_http;
mod server;
mod shop_http;
mod trust_http;
mod wear_http;
