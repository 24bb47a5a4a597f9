//! Where to listen on the local network, and with which certificate.

use std::{
    net::{IpAddr, SocketAddr},
    path::{Path, PathBuf},
    str::FromStr,
    sync::Arc,
};

use rustls::{
    ServerConfig,
    pki_types::{CertificateDer, PrivateKeyDer, pem::PemObject as _},
};

use super::{authority::Trust, host_of, is_nearby};

const PORT: u16 = 7443;

/// An address of this machine, with a port.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Listen(pub SocketAddr);

impl FromStr for Listen {
    type Err = String;

    fn from_str(text: &str) -> Result<Self, String> {
        let alone = || text.parse::<IpAddr>().map(|ip| SocketAddr::new(ip, PORT));
        text.parse().or_else(|_| alone()).map(Self).map_err(|_| {
            format!("\"{text}\" is not an address of this machine: write it as 192.168.1.20, or 0.0.0.0 for all of them; a port may follow, as 192.168.1.20:{PORT}")
        })
    }
}

/// What a device knows the server by.
#[derive(Debug, Clone)]
pub enum Certificate {
    /// One by an authority of the studio, which is kept in this folder and made when there is none.
    Studio(PathBuf),
    /// The studio's own, from files in PEM form.
    Own {
        /// The certificate, and those that it rests on.
        chain: PathBuf,
        /// Its private key.
        key: PathBuf,
    },
}

/// Why the local network can't be listened on.
#[derive(Debug, thiserror::Error)]
pub enum NoNetwork {
    /// There is no address that only the neighbourhood reaches.
    #[error(
        "this machine has no address on a local network: give one with --listen, or bring a certificate with --certificate and --certificate-key"
    )]
    NoAddress,
    /// Anybody anywhere could reach it, and an authority for that would be a danger.
    #[error(
        "{0} can be reached from everywhere, and the studio's authority vouches for local addresses only: bring a certificate with --certificate and --certificate-key"
    )]
    FarAway(IpAddr),
    /// A file is missing or is not what it should be.
    #[error("{path} can't be used as {what}: {why}", path = .path.display())]
    File {
        /// The path of the file.
        path: PathBuf,
        /// What it should be.
        what: &'static str,
        /// What is wrong.
        why: String,
    },
    /// The operating system would not say which addresses it has.
    #[error("the addresses of this machine can't be found out: {0}")]
    Interfaces(#[from] std::io::Error),
    /// A certificate could not be made.
    #[error("a certificate could not be made: {0}")]
    Making(#[from] rcgen::Error),
    /// Certificate and key can't be used together.
    #[error("the certificate and its key can't be used: {0}")]
    Tls(#[from] rustls::Error),
}

impl NoNetwork {
    pub(super) fn file(path: &Path, what: &'static str, why: impl ToString) -> Self {
        Self::File {
            path: path.to_owned(),
            what,
            why: why.to_string(),
        }
    }
}

/// What listening needs.
pub(crate) struct Prepared {
    /// The addresses that devices may ask.
    pub ips: Vec<IpAddr>,
    /// The certificate with its key.
    pub tls: Arc<ServerConfig>,
    /// The authority, if it is the studio's.
    pub authority: Option<Trust>,
}

impl Listen {
    /// Finds the addresses, and makes or reads the certificate: one of the studio's authority is for these and for further names.
    pub(crate) fn prepare(
        self,
        certificate: &Certificate,
        names: &[String],
    ) -> Result<Prepared, NoNetwork> {
        let mut ips = if self.0.ip().is_unspecified() {
            let only_four = self.0.is_ipv4();
            let mut ips = addresses()?;
            ips.retain(|ip| ip.is_ipv4() || !only_four);
            ips
        } else {
            vec![self.0.ip()]
        };
        let (authority, chain, key) = match certificate {
            Certificate::Studio(folder) => {
                match self.0.ip().is_unspecified() {
                    true => ips.retain(|&ip| is_nearby(ip)),
                    false => {
                        let far = ips.iter().find(|&&ip| !is_nearby(ip));
                        far.map_or(Ok(()), |&ip| Err(NoNetwork::FarAway(ip)))?;
                    }
                }
                if ips.is_empty() {
                    return Err(NoNetwork::NoAddress);
                }
                let trust = Trust::in_folder(folder)?;
                let (leaf, key) = trust.certificate_for(&ips, names)?;
                (Some(trust), vec![leaf], key)
            }
            Certificate::Own { chain, key } => {
                let no_chain = |why| NoNetwork::file(chain, "a certificate", why);
                let certificates: Vec<_> = CertificateDer::pem_file_iter(chain)
                    .and_then(Iterator::collect)
                    .map_err(no_chain)?;
                let key = PrivateKeyDer::from_pem_file(key)
                    .map_err(|why| NoNetwork::file(key, "a private key", why))?;
                (None, certificates, key)
            }
        };
        let provider = Arc::new(rustls::crypto::ring::default_provider());
        let mut tls = ServerConfig::builder_with_provider(provider)
            .with_safe_default_protocol_versions()?
            .with_no_client_auth()
            .with_single_cert(chain, key)?;
        tls.alpn_protocols = vec![b"http/1.1".to_vec()];
        Ok(Prepared {
            ips,
            tls: Arc::new(tls),
            authority,
        })
    }
}

impl Prepared {
    /// Returns the addresses to type, with a port; a name that was given comes first.
    pub(crate) fn origins(&self, names: &[String], port: u16) -> Vec<String> {
        let names = if self.authority.is_none() { names } else { &[] };
        let hosts = names.iter().cloned();
        hosts
            .chain(self.ips.iter().map(|&ip| host_of(ip).to_string()))
            .map(|host| format!("https://{host}:{port}"))
            .collect()
    }
}

/// Returns the addresses of this machine that others can ask, those of four numbers first.
fn addresses() -> Result<Vec<IpAddr>, std::io::Error> {
    let mut ips: Vec<IpAddr> = if_addrs::get_if_addrs()?
        .into_iter()
        .filter(|interface| !interface.is_loopback() && !interface.is_link_local())
        .map(|interface| interface.ip())
        .collect();
    ips.sort();
    Ok(ips)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_address_is_read_with_and_without_its_port() {
        for (text, address) in [
            ("192.168.1.20", "192.168.1.20:7443"),
            ("192.168.1.20:8443", "192.168.1.20:8443"),
            ("0.0.0.0", "0.0.0.0:7443"),
            ("fd00::20", "[fd00::20]:7443"),
            ("[fd00::20]:8443", "[fd00::20]:8443"),
        ] {
            let listen: Listen = text.parse().expect("an address");
            assert_eq!(listen.0.to_string(), address);
        }
        for text in [
            "",
            "studio.example",
            "192.168.1",
            "192.168.1.20:",
            ":7443",
            "192.168.1.20:70000",
        ] {
            let refused = text.parse::<Listen>().expect_err("not an address");
            assert!(refused.contains("192.168.1.20"), "{refused}");
        }
    }

    #[test]
    fn what_everybody_reaches_needs_a_certificate_of_its_own() {
        let folder = std::env::temp_dir().join("hummock-no-authority");
        let listen: Listen = "203.0.113.9".parse().expect("an address");
        let refused = listen.prepare(&Certificate::Studio(folder.clone()), &[]);
        assert!(matches!(refused, Err(NoNetwork::FarAway(_))));
        assert!(!folder.exists());
        let own = Certificate::Own {
            chain: folder.join("chain.pem"),
            key: folder.join("key.pem"),
        };
        let refused = listen.prepare(&own, &[]).err().expect("there is no file");
        assert!(refused.to_string().contains("chain.pem"), "{refused}");
    }
}
