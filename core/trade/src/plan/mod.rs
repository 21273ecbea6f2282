//! Heights, the setting solver, reach, checks, the whole Plan answer, and the search over sets of parts.

mod angle;
mod answer;
mod begin;
mod bench;
mod budget;
mod car;
mod case;
mod case_form;
mod checks;
mod curves;
mod expected;
mod foul;
mod guard;
mod height;
mod height_target;
mod in_hand;
mod input;
mod jack_sweep;
mod judge;
mod ladder;
mod line;
mod locates;
mod on_jack;
mod pair;
mod part_case;
mod pictures;
mod quick;
mod reach;
mod result;
mod score;
mod search;
mod settings_case;
mod solver;
mod square;
mod states;
mod steer;
mod stop;
mod suits;
mod surrogate;
mod swept;
mod tread;
mod words;
mod work;

pub use angle::AngleName;
pub use answer::{plan, plan_within, set_edits};
pub(crate) use begin::begin;
pub use begin::fitted_parts;
pub use bench::{Bench, Sensitivity};
pub use budget::Budget;
pub use car::{
    AxleBase, AxlePlan, CarAnswer, CarBase, CarInput, CarPlan, CarStance, CarVerdict, Order, PLAN_FORMAT,
    Picked, Standing, Stands, Thrust, USUAL_LIMIT_MM, WhatIsIn, Worst, WorstKind, car_fitted_parts, orders,
    plan_car, plan_car_within,
};
pub use case::{PlanCase, PlanCaseError, PlanCaseResult, run_plan};
pub use checks::{Check, CheckKind};
pub use curves::CurvePoint;
pub use expected::AS_READ;
pub use height::{PlanState, Way, WayKind};
pub(crate) use height_target::per_turn;
pub use height_target::{
    ByTurning, HeightAnswer, HeightTarget, TargetKind, TurnKnown, Turned, TurnsKnown, height_for,
};
pub(crate) use in_hand::{arm_in_hand, in_hand, on_clock};
pub use input::{Moves, PlanInput, SideReadings, Unread};
pub use judge::{READABLE_DEG, READABLE_TOE_DEG, Shortfall, SolvedSetting};
pub use ladder::{
    Ladder, LadderAsked, LadderEnd, Ladders, MOST_SETS, OtherAxle, Rung, USUAL_SPAN_MM, ladders,
};
pub use line::{CountedIn, InHand, OnTheWay, SettingLine, ThreadInHand};
pub(crate) use line::{line, turns as turns_in_words};
pub(crate) use locates::{is_drag_link, is_one_arm, is_track_bar, locates_only};
pub use on_jack::{JackAim, OnJack, on_jack};
pub(crate) use pair::recentre;
pub use pair::{DragLink, pair, solve_both};
pub use part_case::{PartCase, PartResult, run_part};
pub use pictures::Pictures;
pub use reach::{LockCamber, LockTurn, Plane, Reach, ReachShape, lock_reach, reach};
pub use result::{
    Candidate, CandidateStatus, Effect, ExpectedAngle, KitPart, LockPlan, PlanResult, SidePlan, Verdict,
};
pub use search::{
    CarFound, CarSet, CarWish, Filters, HeightBand, Progress, SearchResult, SetPlan, SetSide, TradeOff,
    search, search_car, search_whole,
};
pub use settings_case::{CornerAim, SettingsCase, SettingsError, SettingsResult, run_settings};
pub use solver::solve;
pub(crate) use square::square;
pub use square::{CENTRE_MM, SQUARE_MM, Square};
pub use states::{AngleVerdict, StateResult, StateSide};
pub use steer::{TurnPath, TurnPoint, TurnSide};
pub use stop::Stop;
pub use suits::USUAL_RATE;
pub use swept::Swept;
pub use tread::{OtherAnswer, scenes_of};
pub(crate) use work::Work;
