//! Front and rear, left and right: what there is one of for each axle, or for each side of one.

use bold_stance_kinematics::geometry::{Axle, Side};
use serde::{Deserialize, Serialize};
use std::ops::{Index, IndexMut};

/// One of a thing for each axle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Axles<T> {
    /// Front axle's.
    pub front: T,
    /// Rear axle's.
    pub rear: T,
}

/// One of a thing for each side of an axle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Sides<T> {
    /// Left one's.
    pub left: T,
    /// Right one's.
    pub right: T,
}

impl<T> Axles<T> {
    /// What `f` gives for each axle, front first.
    pub fn of(mut f: impl FnMut(Axle) -> T) -> Self {
        let front = f(Axle::Front);
        Self { front, rear: f(Axle::Rear) }
    }

    /// Both, rear first: the order in which a car is set.
    pub fn rear_first(&self) -> [(Axle, &T); 2] {
        [(Axle::Rear, &self.rear), (Axle::Front, &self.front)]
    }

    /// Both, front first: the order in which they are told.
    pub fn each(&self) -> [(Axle, &T); 2] {
        [(Axle::Front, &self.front), (Axle::Rear, &self.rear)]
    }

    /// The same of what `f` makes of each.
    pub fn map<U>(self, mut f: impl FnMut(T) -> U) -> Axles<U> {
        Axles { front: f(self.front), rear: f(self.rear) }
    }

    /// Front, then rear.
    pub fn into_pair(self) -> [T; 2] {
        [self.front, self.rear]
    }

    /// By reference.
    pub fn as_ref(&self) -> Axles<&T> {
        Axles { front: &self.front, rear: &self.rear }
    }
}

impl<T> Sides<T> {
    /// What `f` gives for each side, left first.
    pub fn of(mut f: impl FnMut(Side) -> T) -> Self {
        let left = f(Side::Left);
        Self { left, right: f(Side::Right) }
    }

    /// Both, left first.
    pub fn each(&self) -> [(Side, &T); 2] {
        [(Side::Left, &self.left), (Side::Right, &self.right)]
    }

    /// Both, to be changed, left first.
    pub fn each_mut(&mut self) -> [&mut T; 2] {
        [&mut self.left, &mut self.right]
    }

    /// The same of what `f` makes of each.
    pub fn map<U>(self, mut f: impl FnMut(T) -> U) -> Sides<U> {
        Sides { left: f(self.left), right: f(self.right) }
    }

    /// By reference.
    pub fn as_ref(&self) -> Sides<&T> {
        Sides { left: &self.left, right: &self.right }
    }

    /// Left, then right.
    pub fn into_pair(self) -> [T; 2] {
        [self.left, self.right]
    }
}

impl<T> Sides<Option<T>> {
    /// Both, or none where one is missing.
    pub fn both(self) -> Option<Sides<T>> {
        Some(Sides { left: self.left?, right: self.right? })
    }
}

impl<T> Index<Axle> for Axles<T> {
    type Output = T;
    fn index(&self, a: Axle) -> &T {
        match a {
            Axle::Front => &self.front,
            Axle::Rear => &self.rear,
        }
    }
}

impl<T> IndexMut<Axle> for Axles<T> {
    fn index_mut(&mut self, a: Axle) -> &mut T {
        match a {
            Axle::Front => &mut self.front,
            Axle::Rear => &mut self.rear,
        }
    }
}

impl<T> Index<Side> for Sides<T> {
    type Output = T;
    fn index(&self, s: Side) -> &T {
        match s {
            Side::Left => &self.left,
            Side::Right => &self.right,
        }
    }
}

impl<T> IndexMut<Side> for Sides<T> {
    fn index_mut(&mut self, s: Side) -> &mut T {
        match s {
            Side::Left => &mut self.left,
            Side::Right => &mut self.right,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_is_found_by_its_name_and_in_its_order() {
        let mut a = Axles::of(|x| x == Axle::Front);
        assert!(a[Axle::Front] && !a[Axle::Rear]);
        a[Axle::Rear] = true;
        assert_eq!(a.rear_first().map(|(x, _)| x), [Axle::Rear, Axle::Front]);
        let s = Sides { left: Some(1), right: None };
        assert_eq!((s.both(), s.map(|_| Some(2)).both()), (None, Some(Sides { left: 2, right: 2 })));
    }
}
