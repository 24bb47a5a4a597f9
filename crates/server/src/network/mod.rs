//! The local network: tablets in the workshop, always by TLS, and only those that gave the studio's passphrase.

mod authority;
mod devices;
mod door;
mod listen;
mod passphrase;
mod slowing;

pub use listen::{Certificate, Listen, NoNetwork};

pub(crate) use authority::Trust;
pub(crate) use devices::{OneAtATime, open_routes, routes};
pub(crate) use door::{Caller, Door, let_known_in, say_whose};
pub(crate) use passphrase::Passphrase;
pub(crate) use slowing::Attempts;

use std::net::IpAddr;

use url::Host;

/// How devices reach this server, and what they trust it by.
#[derive(Debug)]
pub struct Network {
    /// Addresses of it, the one to type first.
    pub addresses: Vec<String>,
    /// The studio's own authority; nothing when it brought a certificate.
    pub(crate) authority: Option<Trust>,
    /// Made at this start, since there was none; it is shown once.
    pub first_passphrase: Option<String>,
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

    fn picture(&self) -> Option<String> {
        let code = qrcode::QrCode::new(self.addresses.first()?).ok()?;
        Some(code.render::<qrcode::render::svg::Color<'_>>().build())
    }
}

/// Tells whether an address is only reached from nearby: private, link-local or loopback.
const fn is_nearby(address: IpAddr) -> bool {
    match address {
        IpAddr::V4(four) => four.is_private() || four.is_link_local() || four.is_loopback(),
        IpAddr::V6(six) => {
            six.is_unique_local() || six.is_unicast_link_local() || six.is_loopback()
        }
    }
}

/// An address as it stands in a URL.
pub(crate) fn host_of(address: IpAddr) -> Host {
    match address {
        IpAddr::V4(four) => Host::Ipv4(four),
        IpAddr::V6(six) => Host::Ipv6(six),
    }
}
