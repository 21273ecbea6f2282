//! How far a setting fouls.

/// How far a setting fouls; smaller is better.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(crate) struct Foul {
    /// Past its limit, or past where it stood when it was past already: mm and degrees of joints, added.
    pub worse: f64,
    /// Past its limit all in all.
    pub left: f64,
}

impl Foul {
    /// Two wheels together.
    pub(crate) fn and(self, other: Self) -> Self {
        Self { worse: self.worse + other.worse, left: self.left + other.left }
    }
}
