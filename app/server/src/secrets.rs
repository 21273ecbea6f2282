//! What is typed to be let in, and what is handed out to be known by. Argon2id (RFC 9106) with the parameters OWASP's
//! password storage cheat sheet names first for it (19 MiB, two passes, one lane), from memory.

use crate::problem::ApiError;
use actix_web::web;
use argon2::Argon2;
use sha2::{Digest, Sha256};
use totp_rs::{Algorithm, Builder, Totp};

/// Bytes of a salt.
const SALT: usize = 16;
/// Letters of a slip and a code: none that is taken for another.
const LETTERS: &[u8; 32] = b"ABCDEFGHJKLMNPQRSTUVWXYZ23456789";

/// Bytes nobody can guess: two random UUIDs carry 122 bits each from the system's source.
fn random<const N: usize>() -> [u8; N] {
    let mut out = [0; N];
    for chunk in out.chunks_mut(32) {
        let (a, b) = (uuid::Uuid::new_v4(), uuid::Uuid::new_v4());
        let hash = Sha256::new().chain_update(a.as_bytes()).chain_update(b.as_bytes()).finalize();
        let n = chunk.len();
        chunk.copy_from_slice(&hash[..n]);
    }
    out
}

/// What somebody is handed to be known by. Made of the key of the request where it carries one: an answer that was lost on
/// its way is asked for again with the same key, and hands out the same.
pub struct Handed(Option<[u8; 32]>);

impl Handed {
    /// For a request with a key, or without one; `secret` is the server's, `fingerprint` says what the key stands for.
    #[must_use]
    pub fn of(secret: &[u8; 64], key: Option<uuid::Uuid>, fingerprint: i64) -> Self {
        let seed = |k: uuid::Uuid| {
            let all = Sha256::new().chain_update(secret).chain_update(k.as_bytes());
            all.chain_update(fingerprint.to_be_bytes()).finalize().into()
        };
        Self(key.map(seed))
    }

    /// Whether a request of the same key may have come before.
    #[must_use]
    pub fn may_be_again(&self) -> bool {
        self.0.is_some()
    }

    fn bytes(&self, what: &str) -> [u8; 32] {
        match &self.0 {
            Some(seed) => Sha256::new().chain_update(seed).chain_update(what).finalize().into(),
            None => random(),
        }
    }

    /// What a session is known by: 256 bits, in hexadecimal digits.
    #[must_use]
    pub fn session(&self) -> String {
        hex(&self.bytes("session"))
    }

    /// What a device is known by, the same.
    #[must_use]
    pub fn device(&self) -> String {
        hex(&self.bytes("device"))
    }

    /// A code somebody types in: eight letters, 40 bits, good for ten minutes and one device.
    #[must_use]
    pub fn code(&self) -> String {
        letters(&self.bytes("code")[..8])
    }

    /// What is printed once to bring an owner back: 24 letters, 120 bits, in groups of four.
    #[must_use]
    pub fn slip(&self) -> String {
        grouped(&letters(&self.bytes("slip")[..24]))
    }
}

/// A token of 256 bits, written in hexadecimal digits.
#[must_use]
pub fn new_token() -> String {
    hex(&random::<32>())
}

fn hex(bytes: &[u8]) -> String {
    bytes.iter().map(|b| format!("{b:02x}")).collect()
}

/// A salt.
#[must_use]
pub fn new_salt() -> [u8; SALT] {
    random()
}

/// A slip of no request: what an operator makes.
#[must_use]
pub fn new_slip() -> String {
    Handed(None).slip()
}

fn grouped(all: &str) -> String {
    let groups: Vec<&str> = (0..all.len()).step_by(4).map(|i| &all[i..i + 4]).collect();
    groups.join("-")
}

fn letters(bytes: &[u8]) -> String {
    bytes.iter().map(|b| char::from(LETTERS[usize::from(b % 32)])).collect()
}

/// A code or slip as it is compared: capitals, without what stands between; what is easily taken for a letter is that.
#[must_use]
pub fn as_letters(typed: &str) -> String {
    let clean = typed.chars().filter(char::is_ascii_alphanumeric).map(|c| c.to_ascii_uppercase());
    clean
        .map(|c| {
            if c == 'O' || c == '0' {
                'Q'
            } else if c == '1' || c == 'I' {
                'L'
            } else {
                c
            }
        })
        .collect()
}

/// A secret as it is kept: salt, and SHA-256 of the proof.
#[derive(Debug, Clone)]
pub struct KeptSecret {
    /// Salt.
    pub salt: [u8; SALT],
    /// SHA-256 of the proof.
    pub verifier: [u8; 32],
}

impl KeptSecret {
    /// As the store takes it.
    #[must_use]
    pub fn as_kept(&self) -> bold_stance_store::sign_in::Kept<'_> {
        bold_stance_store::sign_in::Kept { salt: &self.salt, verifier: &self.verifier }
    }
}

fn argon(secret: &[u8], salt: &[u8]) -> [u8; 32] {
    let mut out = [0; 32];
    // Its only faults are a salt or secret of no length it takes: then nothing is proved.
    if Argon2::default().hash_password_into(secret, salt, &mut out).is_err() {
        return random();
    }
    out
}

/// What is proved by a secret under a salt. Takes tens of milliseconds, beside the workers that answer.
///
/// # Errors
/// [`ApiError::Busy`] when the server is shutting down.
pub async fn proof(secret: String, salt: Vec<u8>) -> Result<[u8; 32], ApiError> {
    web::block(move || argon(secret.as_bytes(), &salt)).await.map_err(|_| ApiError::Busy)
}

/// A secret for the first time.
///
/// # Errors
/// As [`proof`].
pub async fn keep(secret: String) -> Result<KeptSecret, ApiError> {
    let salt = new_salt();
    let proof = proof(secret, salt.to_vec()).await?;
    Ok(KeptSecret { salt, verifier: Sha256::digest(proof).into() })
}

/// A second factor (RFC 6238): SHA-1, six digits, 30 s, one step either way.
fn second_factor(secret: &[u8]) -> Option<Totp> {
    let b = Builder::new().with_algorithm(Algorithm::SHA1).with_digits(6).with_step_duration(30).with_skew(1);
    b.with_secret(secret.to_vec()).build().ok()
}

/// A new secret of a second factor, 160 bits.
#[must_use]
pub fn new_second_factor() -> [u8; 20] {
    random()
}

/// A secret of a second factor as an app takes it: base 32 (RFC 4648), without padding.
#[must_use]
pub fn base32(bytes: &[u8]) -> String {
    const DIGITS: &[u8; 32] = b"ABCDEFGHIJKLMNOPQRSTUVWXYZ234567";
    let (mut out, mut held, mut bits) = (String::new(), 0_u32, 0);
    for b in bytes {
        held = (held << 8 | u32::from(*b)) & 0xffff;
        bits += 8;
        while bits >= 5 {
            bits -= 5;
            out.push(char::from(DIGITS[(held >> bits & 31) as usize]));
        }
    }
    if bits > 0 {
        out.push(char::from(DIGITS[(held << (5 - bits) & 31) as usize]));
    }
    out
}

/// The time step of a code that is right now, `unix_s` seconds after 1970.
#[must_use]
pub fn step_of_code(secret: &[u8], code: &str, unix_s: u64) -> Option<i64> {
    let digits: String = code.chars().filter(char::is_ascii_digit).collect();
    second_factor(secret)?.check(&digits, unix_s).and_then(|s| i64::try_from(s).ok())
}

#[cfg(test)]
mod tests {
    use super::*;

    /// RFC 6238, appendix B: the secret "12345678901234567890" at 59 s shows 94287082; its last six digits.
    #[test]
    fn a_second_factor_is_the_standards() {
        let secret = b"12345678901234567890";
        assert!(step_of_code(secret, "287082", 59).is_some());
        assert!(step_of_code(secret, "287 082", 59).is_some());
        assert!(step_of_code(secret, "287083", 59).is_none());
        let (a, b) = (step_of_code(secret, "287082", 59), step_of_code(secret, "287082", 80));
        assert_eq!(a, b, "a code is of its own step, whenever it is typed");
        assert!(step_of_code(secret, "287082", 200).is_none());
    }

    /// RFC 4648, section 10.
    #[test]
    fn base_32_is_the_standards() {
        for (plain, written) in [
            ("", ""),
            ("f", "MY"),
            ("fo", "MZXQ"),
            ("foo", "MZXW6"),
            ("foob", "MZXW6YQ"),
            ("fooba", "MZXW6YTB"),
            ("foobar", "MZXW6YTBOI"),
        ] {
            assert_eq!(base32(plain.as_bytes()), written);
        }
    }

    #[actix_web::test]
    async fn a_secret_proves_itself_and_no_other() {
        let kept = keep("4071".into()).await.unwrap();
        let right = proof("4071".into(), kept.salt.to_vec()).await.unwrap();
        let wrong = proof("4072".into(), kept.salt.to_vec()).await.unwrap();
        assert_eq!(<[u8; 32]>::from(Sha256::digest(right)), kept.verifier);
        assert_ne!(<[u8; 32]>::from(Sha256::digest(wrong)), kept.verifier);
        assert_ne!(keep("4071".into()).await.unwrap().verifier, kept.verifier, "each has its salt");
    }

    #[test]
    fn what_is_typed_off_a_slip_is_read_as_it_was_meant() {
        let slip = new_slip();
        assert_eq!(slip.len(), 29);
        assert_eq!(as_letters(&slip.to_lowercase().replace('-', " ")), as_letters(&slip));
        assert_eq!(Handed(None).code().len(), 8);
        assert_ne!(new_token(), new_token());
    }

    #[test]
    fn what_is_handed_out_is_the_same_for_the_same_request_and_no_other() {
        let (key, other) = (uuid::Uuid::new_v4(), uuid::Uuid::new_v4());
        let of = |secret: u8, key, body| Handed::of(&[secret; 64], key, body);
        let first = of(1, Some(key), 5);
        assert!(first.may_be_again() && !of(1, None, 5).may_be_again());
        let again = of(1, Some(key), 5);
        assert_eq!(first.session(), again.session());
        assert_eq!((first.code(), first.slip()), (again.code(), again.slip()));
        assert_ne!(first.session(), first.device());
        for h in [of(2, Some(key), 5), of(1, Some(other), 5), of(1, Some(key), 6), of(1, None, 5)] {
            assert_ne!(h.session(), first.session());
            assert_ne!(h.slip(), first.slip());
        }
        assert_ne!(of(1, None, 5).session(), of(1, None, 5).session());
    }
}
