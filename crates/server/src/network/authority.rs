//! An authority of the studio's own, which a tablet installs once, and the certificates that it signs.
//!
//! Of addresses it vouches for those alone that are reached from nearby. Names are not constrained: a certificate may be for the name that
//! `--allow-host` says, so its key is to be kept as well as any that a tablet trusts.

use std::{
    fs::{self, OpenOptions},
    io::{ErrorKind, Write as _},
    net::IpAddr,
    os::unix::fs::{DirBuilderExt as _, OpenOptionsExt as _},
    path::Path,
};

use jiff::{ToSpan as _, Zoned, civil::Date};
use rcgen::{
    BasicConstraints, CertificateParams, CidrSubnet, DnType, ExtendedKeyUsagePurpose,
    GeneralSubtree, IsCa, Issuer, KeyPair, KeyUsagePurpose, NameConstraints, SanType,
    date_time_ymd,
};
use rustls::pki_types::{CertificateDer, PrivateKeyDer, PrivatePkcs8KeyDer, pem::PemObject as _};
use sha2::{Digest as _, Sha256};

use super::NoNetwork;

/// The authority, ready to sign.
#[derive(Debug)]
pub(crate) struct Trust {
    key: KeyPair,
    /// What a device installs.
    pub certificate: CertificateDer<'static>,
    /// SHA-256 of it, in pairs.
    pub fingerprint: String,
}

const CERTIFICATE: &str = "authority.crt";
const KEY: &str = "authority.key";
/// Its certificate is signed anew at every start; browsers refuse what holds for longer than this.
const LEAF_DAYS: i32 = 397;
const AUTHORITY_YEARS: i32 = 10;

/// What it may vouch for, as address and length of the prefix.
const NEARBY: [(IpAddr, u8); 8] = [
    (IpAddr::V4(std::net::Ipv4Addr::new(10, 0, 0, 0)), 8),
    (IpAddr::V4(std::net::Ipv4Addr::new(172, 16, 0, 0)), 12),
    (IpAddr::V4(std::net::Ipv4Addr::new(192, 168, 0, 0)), 16),
    (IpAddr::V4(std::net::Ipv4Addr::new(169, 254, 0, 0)), 16),
    (IpAddr::V4(std::net::Ipv4Addr::new(127, 0, 0, 0)), 8),
    (
        IpAddr::V6(std::net::Ipv6Addr::new(0xfc00, 0, 0, 0, 0, 0, 0, 0)),
        7,
    ),
    (
        IpAddr::V6(std::net::Ipv6Addr::new(0xfe80, 0, 0, 0, 0, 0, 0, 0)),
        10,
    ),
    (IpAddr::V6(std::net::Ipv6Addr::LOCALHOST), 128),
];

impl Trust {
    /// Reads it from a folder, or makes it there.
    pub(crate) fn in_folder(folder: &Path) -> Result<Self, NoNetwork> {
        let no_folder = |why| NoNetwork::file(folder, "a folder for keys", why);
        fs::DirBuilder::new()
            .recursive(true)
            .mode(0o700)
            .create(folder)
            .map_err(no_folder)?;
        let path = folder.join(KEY);
        let key = match fs::read_to_string(&path) {
            Ok(pem) => read_key(&path, &pem)?,
            Err(error) if error.kind() == ErrorKind::NotFound => make_key(&path)?,
            Err(error) => return Err(NoNetwork::file(&path, "the key of the authority", error)),
        };
        let path = folder.join(CERTIFICATE);
        let certificate = match CertificateDer::from_pem_file(&path) {
            Ok(certificate) => certificate,
            // Another process that makes it at the same time signs with the same key, and one of the two stays.
            Err(_) if !path.exists() => {
                let made = described(&key)?.self_signed(&key)?;
                keep(&path, &made.pem(), 0o644)
                    .map_err(|error| NoNetwork::file(&path, "the authority", error))?;
                CertificateDer::from_pem_file(&path)
                    .map_err(|why| NoNetwork::file(&path, "the authority", why))?
            }
            Err(error) => return Err(NoNetwork::file(&path, "the authority", error)),
        };
        let fingerprint = Sha256::digest(&certificate)
            .iter()
            .map(|byte| format!("{byte:02X}"))
            .collect::<Vec<_>>()
            .join(":");
        Ok(Self {
            key,
            certificate,
            fingerprint,
        })
    }

    /// Signs a certificate for addresses, and for the further names that the server answers under, with a new key.
    pub(crate) fn certificate_for(
        &self,
        ips: &[IpAddr],
        names: &[String],
    ) -> Result<(CertificateDer<'static>, PrivateKeyDer<'static>), NoNetwork> {
        let mut params = CertificateParams::default();
        params
            .distinguished_name
            .push(DnType::CommonName, "Hummock");
        let by_address = ips.iter().map(|&ip| SanType::IpAddress(ip));
        let by_name = names.iter().filter_map(|name| {
            // One that no certificate can hold is still answered under.
            name.as_str().try_into().ok().map(SanType::DnsName)
        });
        params.subject_alt_names = by_address.chain(by_name).collect();
        params.key_usages = vec![KeyUsagePurpose::DigitalSignature];
        params.extended_key_usages = vec![ExtendedKeyUsagePurpose::ServerAuth];
        params.use_authority_key_identifier_extension = true;
        hold(&mut params, LEAF_DAYS);
        let issuer = described(&self.key)?;
        let key = KeyPair::generate()?;
        let signed = params.signed_by(&key, &Issuer::from_params(&issuer, &self.key))?;
        let key = PrivatePkcs8KeyDer::from(key.serialize_der());
        Ok((signed.der().clone(), key.into()))
    }
}

/// Describes the authority of a key: the same at every start, so that what it signs names it.
fn described(key: &KeyPair) -> Result<CertificateParams, NoNetwork> {
    let mut params = CertificateParams::default();
    let digest = Sha256::digest(key.public_key_raw());
    let short: String = digest
        .iter()
        .take(4)
        .map(|byte| format!("{byte:02x}"))
        .collect();
    params.distinguished_name.push(
        DnType::CommonName,
        format!("Hummock studio authority {short}"),
    );
    params.is_ca = IsCa::Ca(BasicConstraints::Constrained(0));
    params.key_usages = vec![KeyUsagePurpose::KeyCertSign];
    params.name_constraints = Some(NameConstraints {
        permitted_subtrees: NEARBY
            .map(|(address, prefix)| {
                GeneralSubtree::IpAddress(CidrSubnet::from_addr_prefix(address, prefix))
            })
            .into(),
        excluded_subtrees: Vec::new(),
    });
    hold(&mut params, AUTHORITY_YEARS * 365);
    Ok(params)
}

/// Has it hold from yesterday on, since clocks differ.
fn hold(params: &mut CertificateParams, days: i32) {
    let yesterday = Zoned::now().date().saturating_sub(1.day());
    let moment = |date: Date| {
        let (month, day) = (date.month().unsigned_abs(), date.day().unsigned_abs());
        date_time_ymd(date.year().into(), month, day)
    };
    params.not_before = moment(yesterday);
    params.not_after = moment(yesterday.saturating_add(days.days()));
}

fn read_key(path: &Path, pem: &str) -> Result<KeyPair, NoNetwork> {
    KeyPair::from_pem(pem).map_err(|why| NoNetwork::file(path, "the key of the authority", why))
}

/// Makes a key and keeps it; when another process was quicker, takes that one's.
fn make_key(path: &Path) -> Result<KeyPair, NoNetwork> {
    let pem = KeyPair::generate()?.serialize_pem();
    let no_key = |why| NoNetwork::file(path, "the key of the authority", why);
    keep(path, &pem, 0o600).map_err(no_key)?;
    read_key(path, &fs::read_to_string(path).map_err(no_key)?)
}

/// Writes a file whole, unless it is there already.
fn keep(path: &Path, text: &str, mode: u32) -> std::io::Result<()> {
    let beside = path.with_extension(uuid::Uuid::now_v7().simple().to_string());
    let mut file = OpenOptions::new()
        .write(true)
        .create_new(true)
        .mode(mode)
        .open(&beside)?;
    file.write_all(text.as_bytes())?;
    file.sync_all()?;
    let linked = fs::hard_link(&beside, path);
    fs::remove_file(&beside)?;
    match linked {
        Err(error) if error.kind() != ErrorKind::AlreadyExists => Err(error),
        _ => Ok(()),
    }
}
