//! What a plan takes to order: one line a part and axle, with the number it is ordered by and its price.

use super::part_data::Part;
use bold_stance_car::vehicle::Axles;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::csv_text::guarded;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::Serialize;

/// A line of the list.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct OrderLine {
    /// Number it is ordered by; empty where the shop typed none.
    pub order_number: String,
    /// The part's own id.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Axle it goes on.
    pub axle: Axle,
    /// The one side it goes on; both where none is named.
    pub only: Option<Side>,
    /// Price of the line in the shop's currency: of the axle, half of it for one side.
    pub price: f64,
    /// Minutes of labour of the line.
    pub labour_minutes: u32,
}

/// Columns of the list: `order_number`, `part`, `name`, `axle` (front, rear), `sides` (both, left, right), `price` and `currency`
/// (of the line), `labour_minutes` (of the line).
pub const ORDER_COLUMNS: [&str; 8] =
    ["order_number", "part", "name", "axle", "sides", "price", "currency", "labour_minutes"];

/// Lines of what is fitted on a car, front axle first, in the order it is fitted.
#[must_use]
pub fn order_list(fitted: &Axles<Vec<Part>>) -> Vec<OrderLine> {
    let of = |axle: Axle| {
        fitted[axle].iter().map(move |p| OrderLine {
            order_number: p.order_number.clone(),
            id: p.id.clone(),
            name: p.name.clone(),
            axle,
            only: p.only,
            price: p.cost,
            labour_minutes: p.labour_minutes,
        })
    };
    [Axle::Front, Axle::Rear].into_iter().flat_map(of).collect()
}

/// The list as CSV.
///
/// # Errors
/// A [`Problem`] when a row cannot be written.
pub fn order_list_csv(lines: &[OrderLine], currency: &str) -> Result<String, Problem> {
    let bad =
        |e: &dyn std::fmt::Display| Problem::new("table", e.to_string(), said("fault-rows-can-written"));
    let mut w = csv::Writer::from_writer(Vec::new());
    w.write_record(ORDER_COLUMNS).map_err(|e| bad(&e))?;
    for l in lines {
        let axle = if l.axle == Axle::Front { "front" } else { "rear" };
        let sides = match l.only {
            None => "both",
            Some(Side::Left) => "left",
            Some(Side::Right) => "right",
        };
        let row = [
            guarded(&l.order_number),
            guarded(&l.id),
            guarded(&l.name),
            axle.into(),
            sides.into(),
            l.price.to_string(),
            guarded(currency),
            l.labour_minutes.to_string(),
        ];
        w.write_record(row).map_err(|e| bad(&e))?;
    }
    String::from_utf8(w.into_inner().map_err(|e| bad(&e))?).map_err(|e| bad(&e))
}

#[cfg(test)]
mod tests {
    use super::super::shipped_parts;
    use super::*;

    #[test]
    fn each_axle_has_its_lines_and_one_side_is_named() {
        let parts = shipped_parts().unwrap();
        let mut arm = parts.iter().find(|p| p.id.starts_with("rear-camber-arm")).unwrap().clone();
        (arm.only, arm.order_number) = (Some(Side::Left), "=LX-204".into());
        let front = parts.iter().find(|p| p.id != arm.id).unwrap().clone();
        let list = order_list(&Axles { front: vec![front.clone()], rear: vec![arm.clone()] });
        assert_eq!((list[0].axle, list[0].only, list[0].price), (Axle::Front, None, front.cost));
        assert_eq!((list[1].axle, list[1].only, list[1].price), (Axle::Rear, Some(Side::Left), arm.cost));
        let text = order_list_csv(&list, "SEK").unwrap();
        let mut rows = csv::Reader::from_reader(text.as_bytes());
        assert_eq!(rows.headers().unwrap().iter().collect::<Vec<_>>(), ORDER_COLUMNS);
        let row = rows.records().nth(1).unwrap().unwrap();
        // A cell that a table would compute is kept as it is written.
        assert_eq!(&row[0], "'=LX-204");
        assert_eq!((&row[3], &row[4], &row[6]), ("rear", "left", "SEK"));
    }
}
