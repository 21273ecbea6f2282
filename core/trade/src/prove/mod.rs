//! The closed loop of a corner: what was expected, what came, what explains it, what it taught, what is left to turn.

mod axle_odds;
mod belief;
mod car;
mod case;
mod explain;
mod learner;
mod live;
mod look;
mod whole;
mod work_loop;

pub use belief::{Belief, Innovation};
pub use car::{AxleLeft, FoundGain, SideLeft, left_to_turn, side_left};
pub use case::{ProveCase, ProveResult, run_prove};
pub use explain::{Explained, explain};
pub use learner::{AnglesRead, Came, Expected, Learner, Next, next_of_both};
pub use look::{Look, after_look, looks};
pub use whole::WholeLeft;
pub use work_loop::WorkLoop;
