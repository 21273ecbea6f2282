//! Free notes and photos of a job, each at a place of the car.

use crate::reading::Place;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// Most photos of a job.
pub const MOST_PHOTOS: usize = 12;
/// Most notes of a job, with and without a photo.
pub const MOST_NOTES: usize = 100;
/// Most characters of a note.
pub const LONGEST_NOTE: usize = 600;
/// Largest photo, bytes; the browser makes them smaller.
pub const MOST_PHOTO_BYTES: usize = 500_000;
/// Longest side of a photo, pixels.
pub const MOST_PHOTO_SIDE: u32 = 1600;

/// Size of a photo, pixels.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PhotoSize {
    /// Across.
    pub width: u32,
    /// Down.
    pub height: u32,
}

/// A note of a job.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Note {
    /// Its id.
    pub id: Uuid,
    /// Where on the car.
    pub place: Place,
    /// What was seen; may be empty beside a photo.
    pub text: String,
    /// Its photo, when it has one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub photo: Option<PhotoSize>,
    /// The photo itself as JPEG in base 64, in a file of a job.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub jpeg: Option<String>,
    /// Who wrote it.
    pub author: String,
    /// When, UTC.
    pub written_at: DateTime<Utc>,
}

/// What is wrong with a note that is to be written, by field; `there` are those the job has.
#[must_use]
pub fn note_problems(text: &str, has_photo: bool, there: &[Note]) -> Vec<Problem> {
    let mut out = Vec::new();
    let n = text.trim().chars().count();
    if n == 0 && !has_photo {
        out.push(Problem::new("text", said("nothing-entered"), said("fault-note-or-photo")));
    }
    if n > LONGEST_NOTE {
        let wrong = said("fault-characters").count("n", n);
        out.push(Problem::new("text", wrong, said("fault-characters-right").count("n", LONGEST_NOTE)));
    }
    if there.len() >= MOST_NOTES {
        let right = said("fault-notes-most").count("n", MOST_NOTES);
        out.push(Problem::new("text", said("fault-too-many"), right));
    }
    if has_photo && there.iter().filter(|n| n.photo.is_some()).count() >= MOST_PHOTOS {
        let right = said("fault-photos-most").count("n", MOST_PHOTOS);
        out.push(Problem::new("photo", said("fault-too-many"), right));
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::reading::{ReadAxle, ReadSide};

    fn note(photo: bool) -> Note {
        Note {
            id: Uuid::nil(),
            place: Place { axle: ReadAxle::Front, side: ReadSide::Left },
            text: "boot torn".into(),
            photo: photo.then_some(PhotoSize { width: 800, height: 600 }),
            jpeg: None,
            author: "Specialist".into(),
            written_at: DateTime::UNIX_EPOCH,
        }
    }

    #[test]
    fn an_empty_note_a_long_one_and_a_thirteenth_photo_are_named() {
        let field = |p: Vec<Problem>| p.into_iter().map(|p| p.field).collect::<Vec<_>>();
        assert!(field(note_problems("", true, &[])).is_empty());
        assert_eq!(field(note_problems("  ", false, &[])), ["text"]);
        assert_eq!(field(note_problems(&"x".repeat(601), false, &[])), ["text"]);
        let full = vec![note(true); MOST_PHOTOS];
        assert_eq!(field(note_problems("a", true, &full)), ["photo"]);
        assert!(field(note_problems("a", false, &full)).is_empty());
    }
}
