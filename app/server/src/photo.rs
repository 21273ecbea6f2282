//! Photos on their way in: a JPEG that is one, no larger than asked, with nothing in it but the picture. Where a camera stood
//! and when is in segments beside the picture (EXIF, XMP, comments); they are dropped here whatever the browser did.

use bold_stance_trade::job::{MOST_PHOTO_BYTES, MOST_PHOTO_SIDE, PhotoSize};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use img_parts::jpeg::{Jpeg, markers};

/// The picture of a JPEG alone, and its size.
///
/// # Errors
/// A [`Problem`] at `photo` for what is no JPEG, or a larger one than is kept.
pub fn picture_of(bytes: &[u8]) -> Result<(Vec<u8>, PhotoSize), Problem> {
    let no = || Problem::new("photo", said("fault-no-jpeg"), said("fault-jpeg-right"));
    if bytes.len() > MOST_PHOTO_BYTES {
        let right = said("fault-photo-at-most").count("kb", MOST_PHOTO_BYTES / 1000);
        return Err(Problem::new("photo", said("fault-photo-large"), right));
    }
    let mut jpeg = Jpeg::from_bytes(bytes.to_vec().into()).map_err(|_| no())?;
    // JFIF's header and Adobe's colour transform are of the picture; everything else beside it tells of the camera.
    jpeg.segments_mut().retain(|s| {
        let of_camera = matches!(s.marker(), markers::APP1..=markers::APP13 | markers::APP15 | markers::COM);
        !of_camera
    });
    // Start of frame, baseline to progressive: precision, height, width (ISO/IEC 10918-1, B.2.2).
    let frame = jpeg.segments().iter().find(|s| {
        (markers::SOF0..=markers::SOF15).contains(&s.marker())
            && ![markers::DHT, markers::JPG, markers::DAC].contains(&s.marker())
    });
    let size = frame.map(|s| s.contents()).filter(|c| c.len() >= 5).map(|c| PhotoSize {
        height: u32::from(u16::from_be_bytes([c[1], c[2]])),
        width: u32::from(u16::from_be_bytes([c[3], c[4]])),
    });
    let size = size.filter(|s| s.width > 0 && s.height > 0).ok_or_else(no)?;
    if size.width.max(size.height) > MOST_PHOTO_SIDE {
        let right = said("fault-photo-side").count("px", MOST_PHOTO_SIDE as usize);
        return Err(Problem::new("photo", said("fault-photo-large"), right));
    }
    Ok((jpeg.encoder().bytes().to_vec(), size))
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A grey picture of 8 by 8 with a baseline frame, and an EXIF segment that tells where it was taken (the smallest JPEG of
    /// ISO/IEC 10918-1, put together by hand).
    fn jpeg(width: u16, height: u16) -> Vec<u8> {
        let mut out = vec![0xff, 0xd8];
        let mut segment = |marker: u8, body: &[u8]| {
            let n = u16::try_from(body.len() + 2).unwrap().to_be_bytes();
            out.extend([0xff, marker, n[0], n[1]]);
            out.extend(body);
        };
        segment(0xe0, b"JFIF\0\x01\x01\0\0\x01\0\x01\0\0");
        segment(0xe1, b"Exif\0\0GPS 12.34 56.78");
        segment(0xfe, b"a comment");
        let mut table = vec![0];
        table.extend([16; 64]);
        segment(0xdb, &table);
        let (h, w) = (height.to_be_bytes(), width.to_be_bytes());
        segment(0xc0, &[8, h[0], h[1], w[0], w[1], 1, 1, 0x11, 0]);
        segment(0xc4, &[0, 1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0]);
        segment(0xda, &[1, 1, 0, 0, 63, 0]);
        out.extend([0x00, 0xff, 0xd9]);
        out
    }

    #[test]
    fn the_picture_stays_and_where_it_was_taken_goes() {
        let raw = jpeg(640, 480);
        assert!(raw.windows(3).any(|w| w == b"GPS"));
        let (clean, size) = picture_of(&raw).unwrap();
        assert_eq!(size, PhotoSize { width: 640, height: 480 });
        for word in [&b"Exif"[..], b"GPS", b"a comment"] {
            assert!(!clean.windows(word.len()).any(|w| w == word), "{word:?}");
        }
        assert!(clean.windows(4).any(|w| w == b"JFIF") && clean.ends_with(&[0xff, 0xd9]));
        assert_eq!(picture_of(&clean).unwrap().0, clean, "nothing more to drop");
    }

    #[test]
    fn what_is_no_jpeg_or_too_large_is_named() {
        assert_eq!(picture_of(b"GIF89a").unwrap_err().field, "photo");
        assert!(picture_of(&[]).is_err() && picture_of(&[0xff, 0xd8]).is_err());
        assert_eq!(picture_of(&jpeg(4000, 3000)).unwrap_err().field, "photo");
        assert!(picture_of(&jpeg(0, 30)).is_err());
        let mut big = jpeg(64, 64);
        big.resize(MOST_PHOTO_BYTES + 1, 0);
        assert!(picture_of(&big).is_err());
    }
}
