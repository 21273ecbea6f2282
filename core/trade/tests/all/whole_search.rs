//! The search over a car: a band of heights, both axles, money and hours together, held against its own axle searches and
//! against every pair of them.

use crate::common;

use bold_stance_car::vehicle::Axles;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_trade::part::{Rule, shipped_parts};
use bold_stance_trade::plan::{
    CarFound, CarInput, CarWish, Filters, HeightBand, TradeOff, search_car, search_whole,
};
use common::{car, electric_rear, truck};

fn lifted() -> CarInput {
    let mut rear = electric_rear();
    rear.own_mut().height_change_mm = 0.0;
    car(Some(&truck()), Some(&rear))
}

fn wished(car: &CarInput, wish: &CarWish) -> CarFound {
    search_whole(car, wish, None, &shipped_parts().unwrap(), &|_| true)
        .unwrap_or_else(|e| panic!("{:?}", e.first()))
}

fn kind(f: &CarFound, k: TradeOff) -> Option<&bold_stance_trade::plan::CarSet> {
    f.sets.iter().find(|s| s.best_at.contains(&k))
}

#[test]
fn both_axles_share_the_money_and_the_hours() {
    let car = lifted();
    let free = wished(&car, &CarWish { band_mm: Axles::default(), filters: Filters::default() });
    assert!(free.landing > 0, "{:?}", free.headline);
    let cheapest = kind(&free, TradeOff::LeastMoney).unwrap();
    // Each axle by itself gives the same sets at the planned heights.
    for axle in [Axle::Front, Axle::Rear] {
        let one =
            search_car(&car, axle, &Filters::default(), None, &shipped_parts().unwrap(), &|_| true).unwrap();
        let set = cheapest.axles[axle].as_ref().unwrap();
        assert!(one.plans.iter().any(|p| p.parts == set.parts));
    }
    // Under what the cheapest takes nothing lands; at it the cheapest still does.
    let at = |budget: f64| {
        wished(
            &car,
            &CarWish {
                filters: Filters { budget: Some(budget), ..Filters::default() },
                band_mm: Axles::default(),
            },
        )
    };
    assert!(at(cheapest.cost).landing > 0);
    for s in &at(cheapest.cost).sets {
        assert!(s.cost <= cheapest.cost + 1e-9);
    }
    if cheapest.cost > 0.0 {
        let less = at(cheapest.cost - 1.0);
        assert!(less.sets.iter().all(|s| s.cost < cheapest.cost));
    }
    let hours = wished(
        &car,
        &CarWish {
            filters: Filters { labour_minutes: Some(60), ..Filters::default() },
            band_mm: Axles::default(),
        },
    );
    assert!(hours.sets.iter().all(|s| s.labour_minutes <= 60));
}

#[test]
fn a_band_is_searched_to_its_ends_and_each_name_is_the_best_of_what_lands() {
    let car = lifted();
    let wish = CarWish {
        band_mm: Axles { front: Some(HeightBand { low_mm: 40.0, high_mm: 60.0 }), rear: None },
        filters: Filters { forbid: vec![Rule::Welding], ..Filters::default() },
    };
    let f = wished(&car, &wish);
    assert_eq!(f.heights, 4);
    assert!(f.sets.iter().all(|s| (40.0..=60.0).contains(&s.gain_mm.front) && s.gain_mm.rear == 0.0));
    let far = kind(&f, TradeOff::Farthest);
    let cheap = kind(&f, TradeOff::LeastMoney).unwrap();
    if let Some(far) = far {
        assert!(far.gain_mm.front >= cheap.gain_mm.front);
    }
    let work = kind(&f, TradeOff::LeastWork).unwrap_or(cheap);
    assert!(f.sets.iter().all(|s| s.labour_minutes >= work.labour_minutes));
    // The set at the height of the least money is what a search at that height says.
    let mut at = car.clone();
    at.plan.axles.front.height_change_mm = cheap.gain_mm.front;
    let one =
        search_car(&at, Axle::Front, &wish.filters, None, &shipped_parts().unwrap(), &|_| true).unwrap();
    assert!(one.plans.iter().any(|p| p.reached && p.parts == cheap.axles.front.as_ref().unwrap().parts));
}

#[test]
fn what_is_turned_round_or_out_of_range_is_told_at_its_field() {
    let car = lifted();
    let wish = CarWish {
        band_mm: Axles {
            front: Some(HeightBand { low_mm: 60.0, high_mm: 40.0 }),
            rear: Some(HeightBand { low_mm: 0.0, high_mm: 900.0 }),
        },
        filters: Filters { budget: Some(-1.0), ..Filters::default() },
    };
    let fields: Vec<String> = search_whole(&car, &wish, None, &shipped_parts().unwrap(), &|_| true)
        .unwrap_err()
        .into_iter()
        .map(|p| p.field)
        .collect();
    for f in ["band_mm.front.high_mm", "band_mm.rear.high_mm", "filters.budget"] {
        assert!(fields.iter().any(|x| x == f), "{f}: {fields:?}");
    }
    // Whoever stops waiting stops it.
    let f = search_whole(
        &car,
        &CarWish { band_mm: Axles::default(), filters: Filters::default() },
        None,
        &shipped_parts().unwrap(),
        &|_| false,
    )
    .unwrap();
    assert!(f.cancelled && f.sets.is_empty());
}
