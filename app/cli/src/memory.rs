//! How the C library's allocator serves the server.
//!
//! glibc gives every busy thread an arena of its own, and an arena gives little back: after an hour of plans and searches
//! over a hundred megabytes stayed with nothing in them (tools/load.py). Two arenas serve two cores as fast and stay small.
//! The library reads this when a process starts, so the program starts itself again with it set; the process id stays.

use std::env;
use std::os::unix::process::CommandExt;
use std::process::Command;

const ARENAS: &str = "MALLOC_ARENA_MAX";
const TRIM: &str = "MALLOC_TRIM_THRESHOLD_";

/// Starts this very command again with few arenas, unless whoever started it decided about them. Goes on as it is where
/// that fails: it only costs memory.
pub fn with_few_arenas() {
    if env::var_os(ARENAS).is_some() {
        return;
    }
    if let Ok(program) = env::current_exe() {
        let mut again = Command::new(program);
        again.args(env::args_os().skip(1)).env(ARENAS, "2").env(TRIM, "131072");
        let failed = again.exec();
        eprintln!("going on with the usual allocator: {failed}");
    }
}
