//! What the shop chooses from: shipped parts and aims under its own.

use crate::problem::ApiError;
use crate::who::Here;
use bold_stance_store::{done, lent, shop_aim, shop_part};
use bold_stance_trade::aim::Aim;
use bold_stance_trade::memory::{HeightsTaught, KnownHeights, Memory, ProvedCar};
use bold_stance_trade::offer::{Lent, OfferedCar};
use bold_stance_trade::part::Part;
use bold_stance_trade::plan::CarInput;
use chrono::{DateTime, Utc};
use serde::Serialize;
use std::collections::HashMap;
use std::sync::{Arc, RwLock};
use std::time::{Duration, Instant};
use utoipa::ToSchema;
use uuid::Uuid;

/// Where a part comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Origin {
    /// Ships with the program.
    Shipped,
    /// The shop's own.
    Shop,
    /// Shipped, changed by the shop.
    Changed,
}

/// A part on the shelf.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ShelfPart {
    /// The part.
    pub part: Part,
    /// Where it comes from.
    pub origin: Origin,
    /// Version of the shop's row; 0 where it has none.
    pub version: i32,
    /// Not offered any more; plans that have it keep it.
    pub retired: bool,
}

/// Parts as the shop has them now.
#[derive(Debug, Default)]
pub struct Shelf {
    /// All of them.
    pub parts: Vec<ShelfPart>,
    /// Cars that were accepted, and what they taught of them.
    pub proved: Vec<ProvedCar>,
    /// What cars taught of height since they were set.
    pub heights: Vec<HeightsTaught>,
    /// What other shops handed over, each with when it counts.
    pub lent: Vec<Lent>,
}

impl Shelf {
    /// What the shop knew when work on a car began; what it knows where none was done yet.
    #[must_use]
    pub fn memory(&self, worked_since: Option<DateTime<Utc>>) -> Memory {
        let handed = self.lent.iter().filter(|l| l.counts(worked_since));
        let cars = handed.flat_map(|l| &l.cars).map(OfferedCar::proved);
        let mut proved: Vec<ProvedCar> = self.proved.iter().cloned().chain(cars).collect();
        proved.sort_by_key(|c| c.at);
        Memory::of(&proved, worked_since).with_heights(&self.of_height(worked_since), worked_since)
    }

    /// What its own cars taught of height, and those of other shops that count.
    fn of_height(&self, worked_since: Option<DateTime<Utc>>) -> Vec<HeightsTaught> {
        let handed = self.lent.iter().filter(|l| l.counts(worked_since)).flat_map(|l| &l.heights);
        let mut all: Vec<HeightsTaught> = self.heights.iter().chain(handed).cloned().collect();
        all.sort_by_key(|h| h.at);
        all
    }

    /// What the shop knew of turns and settling when work on a car began; nothing where its plan takes things as sold.
    #[must_use]
    pub fn heights_for(&self, car: &CarInput) -> KnownHeights {
        if car.plan.as_sold {
            return KnownHeights::default();
        }
        let since = car.base.worked_since;
        KnownHeights::of(&self.of_height(since), since)
    }

    /// Parts as plans of a car take them: as the shop knew them, or as they are sold.
    fn taken<'a>(&self, car: &CarInput, parts: impl Iterator<Item = &'a Part>) -> Vec<Part> {
        if car.plan.as_sold {
            return parts.cloned().collect();
        }
        let memory = self.memory(car.base.worked_since);
        parts.map(|p| memory.known_part(p)).collect()
    }

    /// Parts to choose from for a car, and those of `fitted` that are retired.
    #[must_use]
    pub fn offered(&self, fitted: &[String], car: &CarInput) -> Vec<Part> {
        let named = |p: &Part| fitted.iter().any(|f| f.split('@').next() == Some(p.id.as_str()));
        self.taken(car, self.parts.iter().filter(|s| !s.retired || named(&s.part)).map(|s| &s.part))
    }

    /// What a job planned here has to carry along to be planned alike elsewhere: parts that do not ship so, and the ids of
    /// those not offered any more.
    #[must_use]
    pub fn to_carry(&self) -> (Vec<Part>, Vec<String>) {
        let own = self.parts.iter().filter(|s| s.origin != Origin::Shipped).map(|s| s.part.clone());
        let gone = self.parts.iter().filter(|s| s.retired).map(|s| s.part.id.clone());
        (own.collect(), gone.collect())
    }

    /// The parts that are on a car alone, where the rest of the catalogue says nothing.
    #[must_use]
    pub fn only(&self, car: &CarInput) -> Vec<Part> {
        let fitted = car.plan.fitted();
        let named =
            |p: &&Part| fitted.iter().any(|f| *f == p.id || f.split('@').next() == Some(p.id.as_str()));
        self.taken(car, self.parts.iter().map(|s| &s.part).filter(named))
    }
}

/// How long a shelf is used before it is looked at anew: another server process may have changed it.
const FRESH: Duration = Duration::from_secs(2);

/// When it was looked at, and what was there.
type Looked = (Instant, Arc<Shelf>);

/// The shelf of each shop as last looked at.
#[derive(Debug, Clone, Default)]
pub struct ShelfCache(Arc<RwLock<HashMap<Uuid, Looked>>>);

impl ShelfCache {
    /// Forgets a shop's, after a change.
    pub fn forget(&self, shop: Uuid) {
        if let Ok(mut c) = self.0.write() {
            c.remove(&shop);
        }
    }
}

impl Here {
    /// The parts of the shop.
    ///
    /// # Errors
    /// Database errors.
    pub async fn shelf(&self) -> Result<Arc<Shelf>, ApiError> {
        if let Ok(c) = self.shelf_cache.0.read()
            && let Some((at, shelf)) = c.get(&self.shop.id)
            && at.elapsed() < FRESH
        {
            return Ok(shelf.clone());
        }
        let mut tx = self.tx().await?;
        let own = shop_part::all(&mut tx).await?;
        let mut parts: Vec<ShelfPart> = self
            .parts
            .iter()
            .map(|p| ShelfPart { part: p.clone(), origin: Origin::Shipped, version: 0, retired: false })
            .collect();
        for o in own {
            match parts.iter_mut().find(|s| s.part.id == o.part.id) {
                Some(s) => {
                    let origin = if s.part == o.part { Origin::Shipped } else { Origin::Changed };
                    *s = ShelfPart { part: o.part, origin, version: o.version, retired: o.retired };
                }
                None => parts.push(ShelfPart {
                    part: o.part,
                    origin: Origin::Shop,
                    version: o.version,
                    retired: o.retired,
                }),
            }
        }
        let proved = done::taught(&mut tx).await?;
        let heights = done::taught_of_height(&mut tx).await?;
        let lent = lent::all(&mut tx).await?;
        let shelf = Arc::new(Shelf { parts, proved, heights, lent });
        if let Ok(mut c) = self.shelf_cache.0.write() {
            c.insert(self.shop.id, (Instant::now(), shelf.clone()));
        }
        Ok(shelf)
    }

    /// Shipped aims and then the shop's own, with the versions of those.
    ///
    /// # Errors
    /// Database errors.
    pub async fn all_aims(&self) -> Result<Vec<ShelfAim>, ApiError> {
        let mut tx = self.tx().await?;
        let own = shop_aim::all(&mut tx).await?;
        let shipped = self.aims.iter().map(|a| ShelfAim { aim: a.clone(), own: false, version: 0 });
        Ok(shipped
            .chain(own.into_iter().map(|(version, aim)| ShelfAim { aim, own: true, version }))
            .collect())
    }
}

/// An aim to choose.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ShelfAim {
    /// The aim.
    pub aim: Aim,
    /// The shop's own.
    pub own: bool,
    /// Version of the shop's row; 0 for a shipped one.
    pub version: i32,
}
