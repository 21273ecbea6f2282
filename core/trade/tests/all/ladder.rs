//! How high can it go: the ladder held against brute force over heights and adjusters, its ends named, doubt inside.

use crate::common;

use bold_stance_car::adjuster::Adjuster;
use bold_stance_car::vehicle::Limits;
use bold_stance_car::vehicle::anchor;
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_trade::part::{Part, parts_for, shipped_parts};
use bold_stance_trade::plan::{
    Budget, CarInput, Ladder, LadderAsked, Ladders, OtherAxle, PlanInput, USUAL_SPAN_MM, ladders,
};

/// The demo truck with an aim its cams hold over a stretch of heights.
fn truck() -> PlanInput {
    let mut i = common::truck();
    i.moves.front.settle_mm = 0.0;
    i.moves.front.load_mm = 0.0;
    i.moves.front.height_change_mm = 0.0;
    i.aim.camber_deg = [-0.6, 0.4];
    i.aim.caster_deg = [2.4, 4.2];
    i
}

fn car(i: &PlanInput) -> CarInput {
    common::car(Some(i), None)
}

fn asked(i: &PlanInput, sets: &[&[&str]]) -> Ladders {
    let a = LadderAsked {
        car: car(i),
        axle: Axle::Front,
        other: OtherAxle::AsPlanned,
        sets: sets.iter().map(|s| s.iter().map(|p| (*p).to_owned()).collect()).collect(),
        span_mm: USUAL_SPAN_MM,
    };
    ladders(&a, &shipped_parts().unwrap(), &Budget::default()).unwrap_or_else(|e| panic!("{:?}", e.first()))
}

/// Whether a fine grid of both cams and the rod puts this side inside every window at a height: posed here, one by one.
fn brute(i: &PlanInput, parts: &[&Part], side: Side, gain_mm: f64) -> bool {
    let read = if side == Side::Left { &i.left } else { &i.right };
    let (points, wheel) = i.geometry.side(side);
    let travel = i.design_height_mm - read.height_mm;
    let own: &[Adjuster] = &i.adjusters[side];
    let start: Vec<Edit> = own.iter().flat_map(|a| a.edits_at(a.position)).collect();
    let anchored = anchor(&points, &wheel, travel, &start, &read.angles).unwrap();
    let fitted: Vec<Edit> = parts.iter().flat_map(|p| p.edits.iter().cloned()).collect();
    let bare = anchored.corner.edited(&fitted);
    // Nose up adds caster one to one.
    let pitch = (gain_mm / i.wheelbase_mm).atan().to_degrees();
    let cams: Vec<f64> = (-18..=18).map(|k| f64::from(k) * 5.0).collect();
    let t = i.aim.target(Axle::Front, side);
    cams.iter().any(|f| {
        cams.iter().any(|r| {
            let edits: Vec<Edit> = own[0].edits_at(*f).into_iter().chain(own[1].edits_at(*r)).collect();
            let Ok(w) = bare.edited(&edits).wheel(travel - gain_mm, 0.0) else { return false };
            let caster = w.steer.unwrap().caster_deg + pitch;
            (t.camber[0]..=t.camber[1]).contains(&w.camber_deg)
                && (t.caster[0]..=t.caster[1]).contains(&caster)
        })
    })
}

fn holds(l: &Ladder, gain_mm: f64) -> Option<bool> {
    l.rungs.iter().find(|r| (r.gain_mm - gain_mm).abs() < 1e-6).map(|r| r.may)
}

#[test]
fn every_rung_is_what_a_grid_of_the_cams_finds() {
    let i = truck();
    let all = shipped_parts().unwrap();
    let parts = parts_for(&all, &i.geometry);
    let arm = parts.iter().find(|p| p.id == "offset-upper-arm@14").unwrap();
    let found = asked(&i, &[&["offset-upper-arm@14"]]);
    for (l, set) in found.ladders.iter().zip([vec![], vec![arm]]) {
        let mut differs = Vec::new();
        for r in &l.rungs {
            let grid = [Side::Left, Side::Right].map(|s| brute(&i, &set, s, r.gain_mm));
            let ladder = holds(l, r.gain_mm).unwrap();
            if ladder != (grid[0] && grid[1]) {
                differs.push((r.gain_mm, ladder, grid));
            }
        }
        // A rung at the very edge may fall either way: cams a twentieth of a turn apart miss what lies between.
        assert!(differs.len() <= 1, "{:?}: {differs:?} {:?}", l.parts, l.above);
        assert!(l.rungs.iter().any(|r| r.may), "{:?} reaches nowhere", l.parts);
    }
}

#[test]
fn a_part_that_gives_caster_goes_higher_and_what_gives_out_is_named() {
    let found = asked(&truck(), &[&["offset-upper-arm@14"]]);
    let [bare, arm] = &found.ladders[..] else { panic!("{}", found.ladders.len()) };
    assert!(bare.parts.is_empty() && arm.parts == ["offset-upper-arm@14"]);
    let (b, a) = (bare.may_mm.unwrap(), arm.may_mm.unwrap());
    assert!(a[1] > b[1] + 5.0, "{b:?} {a:?}");
    // Lifted, caster goes first on this front.
    assert_eq!(bare.above.as_ref().unwrap().angle.unwrap().word(), "caster");
    // What is sure lies inside what the model has, and shares run out where it ends.
    for l in &found.ladders {
        if let (Some(s), Some(m)) = (l.sure_mm, l.may_mm) {
            assert!(s[0] >= m[0] - 1e-9 && s[1] <= m[1] + 1e-9, "{s:?} {m:?}");
        }
        for r in &l.rungs {
            assert!((0.0..=1.0).contains(&r.share.left) && (!r.sure || r.may));
            assert!(!r.may || (r.share.left > 0.0 && r.share.right > 0.0));
        }
    }
    assert_eq!(found.highest_mm, found.ladders.iter().filter_map(|l| Some(l.sure_mm?[1])).reduce(f64::max));
}

/// Set to the edge of the ladder the plan itself lands, a little beyond it does not.
#[test]
fn the_plan_agrees_with_where_the_ladder_ends() {
    let i = truck();
    let found = asked(&i, &[]);
    let [_, top] = found.ladders[0].may_mm.unwrap();
    let at = |gain: f64| bold_stance_trade::plan::plan(&i.clone().lifted(gain), &[]).unwrap().verdict.reached;
    // Whole notches are coarser than the ladder's adjusters: a few millimetres inside they land.
    assert!(at(top - 12.0), "{top}");
    assert!(!at(top + 6.0), "{top}");
}

/// A damper measured on this car leaves 25 mm of droop up to so much height: that caps the ladder, whatever the angles do.
#[test]
fn droop_that_runs_out_caps_it() {
    let top = |i: &PlanInput| asked(i, &[]).ladders.remove(0);
    let free = top(&truck());
    assert!(free.above.unwrap().angle.is_some());
    for droop in [40.0, 55.0, 80.0] {
        let mut i = truck();
        i.limits = Limits { droop_mm: Some(droop), ..Limits::default() };
        let l = top(&i);
        let end = l.above.as_ref().unwrap();
        let [_, high] = l.may_mm.unwrap();
        // By hand: what is left of the droop as found, less the 25 mm the check asks for.
        assert!((high - (droop - 25.0)).abs() <= 1.5, "{droop}: {high}");
        assert!(end.angle.is_none() && l.sure_mm.is_none_or(|s| s[1] <= high), "{end:?}");
        assert!(high < free.may_mm.unwrap()[1]);
    }
    // Out of droop where it stands already it has to come down by what is missing.
    let mut i = truck();
    i.limits = Limits { droop_mm: Some(20.0), ..Limits::default() };
    assert!((top(&i).may_mm.unwrap()[1] + 5.0).abs() <= 1.5);
}

#[test]
fn what_is_not_there_is_refused_at_its_field() {
    let i = truck();
    let ask = |sets: Vec<Vec<String>>, span_mm, axle| {
        let a = LadderAsked { car: car(&i), axle, other: OtherAxle::AsPlanned, sets, span_mm };
        ladders(&a, &shipped_parts().unwrap(), &Budget::default()).unwrap_err()[0].field.clone()
    };
    assert_eq!(ask(vec![vec!["moon-arm".into()]], USUAL_SPAN_MM, Axle::Front), "sets.0");
    assert_eq!(ask(vec![Vec::new(); 13], USUAL_SPAN_MM, Axle::Front), "sets");
    assert_eq!(ask(Vec::new(), [10.0, 120.0], Axle::Front), "span_mm.0");
    assert_eq!(ask(Vec::new(), USUAL_SPAN_MM, Axle::Rear), "axle");
    let c = Corner::of(&i.geometry, Side::Left);
    assert!(c.wheel(0.0, 0.0).is_ok());
}

#[test]
fn with_the_rake_kept_the_ladder_is_the_one_of_a_body_that_does_not_pitch() {
    let i = truck();
    let with = |other: OtherAxle, aim: &dyn Fn(&mut PlanInput)| {
        let mut i = i.clone();
        aim(&mut i);
        let a =
            LadderAsked { car: car(&i), axle: Axle::Front, other, sets: Vec::new(), span_mm: USUAL_SPAN_MM };
        ladders(&a, &shipped_parts().unwrap(), &Budget::default()).unwrap().ladders.remove(0)
    };
    let plain = with(OtherAxle::AsPlanned, &|_| ());
    let kept = with(OtherAxle::KeepsRake, &|_| ());
    // Nose up adds caster: without it the caster of this truck gives out lower.
    assert!(kept.may_mm.unwrap()[1] < plain.may_mm.unwrap()[1] - 1.0, "{:?} {:?}", kept.may_mm, plain.may_mm);
    // As if the wheelbase were endless: no pitch at all.
    let endless = with(OtherAxle::AsPlanned, &|i| i.wheelbase_mm = 8000.0);
    let (a, b, c) = (kept.may_mm.unwrap()[1], endless.may_mm.unwrap()[1], plain.may_mm.unwrap()[1]);
    assert!(a <= b && b <= c, "{a} {b} {c}");
}
