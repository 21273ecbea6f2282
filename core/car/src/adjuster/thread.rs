//! Threads of links: which link one lengthens, and which end of it is left-hand.

use serde::{Deserialize, Serialize};

/// Which link a thread lengthens.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(from = "String", into = "String")]
pub enum ThreadLink {
    /// Tie rod: toe, always set last.
    Tie,
    /// Both links of the upper arm.
    Upper,
    /// Upper arm, front link.
    UpperFront,
    /// Upper arm, rear link.
    UpperRear,
    /// Both links of the lower arm.
    Lower,
    /// Lower arm, front link.
    LowerFront,
    /// Lower arm, rear link.
    LowerRear,
    /// A link of a multi-link or solid axle by its name in the file, or a left and right pair by their common
    /// name.
    Named(String),
}

impl From<String> for ThreadLink {
    fn from(s: String) -> Self {
        match s.as_str() {
            "tie" => Self::Tie,
            "upper" => Self::Upper,
            "upper_front" => Self::UpperFront,
            "upper_rear" => Self::UpperRear,
            "lower" => Self::Lower,
            "lower_front" => Self::LowerFront,
            "lower_rear" => Self::LowerRear,
            _ => Self::Named(s),
        }
    }
}

impl From<ThreadLink> for String {
    fn from(l: ThreadLink) -> Self {
        l.word().to_owned()
    }
}

impl ThreadLink {
    /// The word in a file.
    #[must_use]
    pub fn word(&self) -> &str {
        match self {
            Self::Tie => "tie",
            Self::Upper => "upper",
            Self::UpperFront => "upper_front",
            Self::UpperRear => "upper_rear",
            Self::Lower => "lower",
            Self::LowerFront => "lower_front",
            Self::LowerRear => "lower_rear",
            Self::Named(n) => n,
        }
    }
}

#[cfg(feature = "openapi")]
impl utoipa::PartialSchema for ThreadLink {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::Schema> {
        String::schema()
    }
}

#[cfg(feature = "openapi")]
impl utoipa::ToSchema for ThreadLink {
    fn name() -> std::borrow::Cow<'static, str> {
        "ThreadLink".into()
    }
}

/// Which end of a link has a left-hand thread.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum LeftHand {
    /// None: one thread, right-hand.
    Neither,
    /// The end at the body.
    Inner,
    /// The end at the wheel.
    Wheel,
}
