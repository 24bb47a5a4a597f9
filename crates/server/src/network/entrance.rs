//! What stands at the door of the local network.

use std::sync::Arc;

use tokio::sync::Notify;

use super::{
    authority::Trust,
    slowing::{Attempts, OneAtATime},
};

/// How devices reach this server, and what they trust it by.
#[derive(Debug)]
pub struct Network {
    /// Addresses of it, the one to type first.
    pub addresses: Vec<String>,
    /// The studio's own authority; `None` if it brought a certificate.
    pub(crate) authority: Option<Trust>,
    /// Made at this start, since there was none; it is shown once.
    pub first_passphrase: Option<String>,
}

/// What stands at the door of the local network.
#[derive(Debug, Clone, Default)]
pub(crate) struct Entrance {
    /// How devices reach it, when they may.
    pub network: Option<Arc<Network>>,
    /// Wrong passphrases.
    pub attempts: Arc<Attempts>,
    /// Turns at having a passphrase looked at.
    pub turns: OneAtATime,
    /// Rung when a device is signed out, so that what it has open ends.
    pub signed_out: Arc<Notify>,
}

impl Network {
    /// Returns the fingerprint of the authority as devices show it: SHA-256, in pairs.
    #[must_use]
    pub fn fingerprint(&self) -> Option<&str> {
        self.authority
            .as_ref()
            .map(|trust| trust.fingerprint.as_str())
    }

    /// Returns the address to type as a picture for cameras, in half blocks.
    #[must_use]
    pub fn drawn(&self) -> Option<String> {
        let code = qrcode::QrCode::new(self.addresses.first()?).ok()?;
        Some(code.render::<qrcode::render::unicode::Dense1x2>().build())
    }

    pub(super) fn picture(&self) -> Option<String> {
        let code = qrcode::QrCode::new(self.addresses.first()?).ok()?;
        Some(code.render::<qrcode::render::svg::Color<'_>>().build())
    }
}
