//! Pieces of a geometry file that a layout reads its points from and writes them to.

use super::basics::{Point, SteeringAxis};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// One link: `inner`/`outer` of a rod, `chassis`/`axle` of a solid axle's link.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct LinkFile {
    /// Joint on the body of a five-link rod, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub inner: Option<[f64; 3]>,
    /// Joint on the knuckle of a five-link rod, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub outer: Option<[f64; 3]>,
    /// Joint on the body of a solid axle's link, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub chassis: Option<[f64; 3]>,
    /// Joint on the axle, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub axle: Option<[f64; 3]>,
}

/// Both ends of a tie rod.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct TieRodFile {
    /// Left end, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub left: [f64; 3],
    /// Right end, y negative, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub right: [f64; 3],
}

/// What a layout may find in a file, or puts there. Fields of the other layouts are refused before.
#[derive(Debug, Clone, Default)]
pub(crate) struct FileParts {
    /// Points by name.
    pub points: Option<BTreeMap<String, Point>>,
    /// Links by name.
    pub links: Option<BTreeMap<String, LinkFile>>,
    /// Kingpins of a steered solid axle.
    pub steering_axis: Option<SteeringAxis>,
    /// Drag link of a solid axle.
    pub drag_link: Option<LinkFile>,
    /// Tie rod of a solid axle.
    pub tie_rod: Option<TieRodFile>,
    /// x and z of a twist beam's shear centre, mm.
    pub shear_center: Option<[f64; 2]>,
}

impl FileParts {
    /// Its points, taken by name, of a layout that has no links; `at` is put before every field.
    ///
    /// # Errors
    /// A [`Problem`] at `links` where there are some.
    pub(crate) fn only_points(&mut self, at: &str) -> Result<Named, Problem> {
        no_links(at, self.links.as_ref())?;
        Ok(Named::new(at, self.points.take()))
    }

    /// Its links, of a layout that has no points.
    ///
    /// # Errors
    /// A [`Problem`] at the first point.
    pub(crate) fn only_links(&mut self, at: &str) -> Result<BTreeMap<String, LinkFile>, Problem> {
        Named::new(at, self.points.take()).nothing_left("\"links\" instead of points")?;
        Ok(self.links.take().unwrap_or_default())
    }

    /// Points as they are written, from their paths in the file.
    pub(crate) fn put_points(&mut self, named: Vec<(String, Point)>) {
        let short = |(n, p): (String, Point)| (n.trim_start_matches("points.").to_owned(), p);
        self.points = Some(named.into_iter().map(short).collect());
    }
}

/// Takes points out of a file by name; what is left over was unknown.
pub(crate) struct Named {
    at: String,
    pub(crate) map: BTreeMap<String, Point>,
}

impl Named {
    pub(crate) fn new(at: &str, map: Option<BTreeMap<String, Point>>) -> Self {
        Self { at: format!("{at}points"), map: map.unwrap_or_default() }
    }

    pub(crate) fn take(&mut self, name: &str) -> Result<Point, Problem> {
        self.map.remove(name).ok_or_else(|| {
            Problem::new(
                format!("{}.{name}", self.at),
                said("fault-this-point-missing"),
                said("fault-x-y-z-mm"),
            )
        })
    }

    pub(crate) fn nothing_left(&self, known: &str) -> Result<(), Problem> {
        match self.map.keys().next() {
            Some(k) => Err(Problem::new(
                format!("{}.{k}", self.at),
                said("fault-unknown-field-this-layout-no"),
                known,
            )),
            None => Ok(()),
        }
    }
}

pub(crate) fn no_links(at: &str, links: Option<&BTreeMap<String, LinkFile>>) -> Result<(), Problem> {
    match links {
        Some(_) => Err(Problem::new(
            format!("{at}links"),
            said("fault-unknown-field-this-layout-points"),
            said("fault-points"),
        )),
        None => Ok(()),
    }
}

pub(crate) fn ends(field: &str, l: &LinkFile, axle: bool) -> Result<(Point, Point), Problem> {
    let (a, b, x, y, right) = if axle {
        (l.chassis, l.axle, l.inner, l.outer, said("fault-ends-chassis"))
    } else {
        (l.inner, l.outer, l.chassis, l.axle, said("fault-ends-inner"))
    };
    match (a, b, x, y) {
        (Some(a), Some(b), None, None) => Ok((a, b)),
        _ => Err(Problem::new(field, said("fault-two-ends-this-link-not"), right)),
    }
}

/// Most links a file may have; more is a mistake and would cost time.
pub(crate) const MOST_LINKS: usize = 12;
