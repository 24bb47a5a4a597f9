//! The local network: tablets in the workshop, always by TLS, and only those that gave the studio's passphrase.

mod authority;
mod caps;
pub(crate) mod devices;
mod door;
pub(crate) mod entrance;
mod listen;
mod passphrase;
mod slowing;

pub use listen::{Certificate, Listen, NoNetwork};

pub(crate) use caps::Capped;
pub use caps::MostConnections;
pub(crate) use door::{Caller, Door, let_known_in, say_whose, studio_cookie};
pub use entrance::Network;
pub(crate) use passphrase::Passphrase;

use std::net::IpAddr;

use url::Host;

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
