//! A certificate of one's own.

use rustls::ServerConfig;
use rustls::pki_types::pem::PemObject;
use rustls::pki_types::{CertificateDer, PrivateKeyDer};
use std::path::Path;

/// What is wrong with a certificate or its key.
#[derive(Debug, thiserror::Error)]
pub enum TlsFault {
    /// The certificate cannot be read.
    #[error("--tls-cert: {0}; a certificate and those it hangs on, PEM")]
    Certificate(String),
    /// The key cannot be read.
    #[error("--tls-key: {0}; the certificate's private key, PEM")]
    Key(String),
    /// They do not belong together.
    #[error("--tls-cert, --tls-key: {0}; the two that belong together")]
    Pair(rustls::Error),
}

/// TLS 1.2 and 1.3 with a certificate and its key.
///
/// # Errors
/// [`TlsFault`].
pub fn config(certificate: &Path, key: &Path) -> Result<ServerConfig, TlsFault> {
    let chain: Vec<CertificateDer<'static>> = CertificateDer::pem_file_iter(certificate)
        .and_then(Iterator::collect)
        .map_err(|e| TlsFault::Certificate(e.to_string()))?;
    if chain.is_empty() {
        return Err(TlsFault::Certificate("no certificate in it".into()));
    }
    let key = PrivateKeyDer::from_pem_file(key).map_err(|e| TlsFault::Key(e.to_string()))?;
    let provider = rustls::crypto::ring::default_provider();
    ServerConfig::builder_with_provider(provider.into())
        .with_safe_default_protocol_versions()
        .map_err(TlsFault::Pair)?
        .with_no_client_auth()
        .with_single_cert(chain, key)
        .map_err(TlsFault::Pair)
}
