//! Who may ask: only pages of our own, under a name that is ours.
//!
//! A page elsewhere can have a name point at this machine and so read what answers; it can't choose the name that the
//! browser sends. A page elsewhere can also send forms here; the browser says where from.

use std::{net::IpAddr, sync::Arc};

use axum::{
    extract::{Request, State},
    http::{HeaderMap, HeaderName, Method, header},
    middleware::Next,
    response::{IntoResponse, Response},
};
use url::{Host, Url};

use crate::{network::host_of, problem::Problem};

/// The names and origins that are ours.
#[derive(Debug, Clone, Default)]
pub struct Ours {
    hosts: Arc<[Host]>,
    origins: Arc<[String]>,
}

/// Why a name or an origin can't be one of ours.
#[derive(Debug, thiserror::Error)]
pub enum NotOurs {
    /// A name that no browser sends.
    #[error(
        "\"{0}\" is not the name of a machine: write it as studio.example or 192.168.1.20, without a port"
    )]
    Host(String),
    /// An address that pages don't come from.
    #[error("\"{0}\" is not an origin: write it as https://studio.example")]
    Origin(String),
}

const FETCH_SITE: HeaderName = HeaderName::from_static("sec-fetch-site");

impl Ours {
    /// Makes them from the addresses that are listened on, further names, and the origins of pages that come through
    /// a proxy.
    ///
    /// # Errors
    /// [`NotOurs`] names what can't be understood.
    pub fn of(addresses: &[IpAddr], names: &[String], origins: &[String]) -> Result<Self, NotOurs> {
        let mut hosts = vec![
            Host::Domain("localhost".to_owned()),
            Host::Ipv4(std::net::Ipv4Addr::LOCALHOST),
            Host::Ipv6(std::net::Ipv6Addr::LOCALHOST),
        ];
        hosts.extend(addresses.iter().map(|&address| host_of(address)));
        for name in names {
            hosts.push(Host::parse(name).map_err(|_| NotOurs::Host(name.clone()))?);
        }
        let mut known = Vec::new();
        for origin in origins {
            let url = Url::parse(origin).map_err(|_| NotOurs::Origin(origin.clone()))?;
            let host = url.host().ok_or_else(|| NotOurs::Origin(origin.clone()))?;
            hosts.push(host.to_owned());
            known.push(url.origin().ascii_serialization());
        }
        Ok(Self {
            hosts: hosts.into(),
            origins: known.into(),
        })
    }

    /// Tells whether a name with its port, as a browser sends it, is ours.
    fn is_host(&self, authority: &str) -> bool {
        Url::parse(&format!("http://{authority}"))
            .ok()
            .filter(|url| {
                url.username().is_empty() && url.password().is_none() && url.path() == "/"
            })
            .and_then(|url| url.host().map(|host| host.to_owned()))
            .is_some_and(|host| self.hosts.contains(&host))
    }

    /// Tells whether a page of an origin may change anything: one that was handed out under the name that it asks.
    fn is_origin(&self, origin: &str, authority: &str) -> bool {
        self.origins.iter().any(|known| known == origin)
            || ["http", "https"].into_iter().any(|scheme| {
                let own = Url::parse(&format!("{scheme}://{authority}"));
                own.is_ok_and(|own| own.origin().ascii_serialization() == origin)
            })
    }

    fn look_at(
        &self,
        method: &Method,
        (authority, path): (Option<&str>, &str),
        headers: &HeaderMap,
    ) -> Result<(), Problem> {
        let authority = authority
            .filter(|authority| self.is_host(authority))
            .ok_or_else(Problem::not_this_host)?;
        let elsewhere = headers
            .get(FETCH_SITE)
            .is_some_and(|site| site == "cross-site");
        if matches!(*method, Method::GET | Method::HEAD | Method::OPTIONS) {
            // Pages are opened from anywhere; what is worked out or read for them is not.
            return if elsewhere && path.starts_with("/api/") {
                Err(Problem::not_this_origin())
            } else {
                Ok(())
            };
        }
        let foreign = headers.get(header::ORIGIN).is_some_and(|origin| {
            origin
                .to_str()
                .map_or(true, |origin| !self.is_origin(origin, authority))
        });
        if elsewhere || foreign {
            Err(Problem::not_this_origin())
        } else {
            Ok(())
        }
    }
}

/// Lets a request in, or says why not.
pub(crate) async fn let_in(State(ours): State<Ours>, request: Request, next: Next) -> Response {
    // HTTP/2 says it in the address, HTTP/1.1 in a header.
    let said = request.headers().get(header::HOST);
    let authority = request
        .uri()
        .authority()
        .map(|authority| authority.as_str())
        .or_else(|| said.and_then(|host| host.to_str().ok()));
    let asked = (authority, request.uri().path());
    match ours.look_at(request.method(), asked, request.headers()) {
        Ok(()) => next.run(request).await,
        Err(problem) => problem.into_response(),
    }
}

#[cfg(test)]
mod tests {
    use axum::http::HeaderValue;

    use super::*;

    fn ours() -> Ours {
        Ours::of(
            &[[192, 168, 1, 20].into()],
            &["studio.example".to_owned()],
            &["https://bench.example".to_owned()],
        )
        .expect("they are names")
    }

    #[test]
    fn only_names_of_ours_are_answered() {
        for name in [
            "localhost",
            "localhost:7373",
            "127.0.0.1:7373",
            "[::1]:7373",
            "192.168.1.20",
            "studio.example:80",
            "STUDIO.example",
            "bench.example",
        ] {
            assert!(ours().is_host(name), "{name}");
        }
        for name in [
            "",
            "evil.example",
            "localhost.evil.example",
            "127.0.0.1.evil.example",
            "evil.example#localhost",
            "evil.example/localhost",
            "localhost@evil.example",
            "evil@localhost",
            "192.168.1.21",
            "localhost:port",
            "studio.example.",
            "a b",
        ] {
            assert!(!ours().is_host(name), "{name}");
        }
    }

    #[test]
    fn a_page_of_elsewhere_changes_nothing() {
        let look = |method: Method, name: &str, headers: &[(HeaderName, &'static str)]| {
            let headers = headers
                .iter()
                .map(|(name, value)| (name.clone(), HeaderValue::from_static(value)))
                .collect();
            ours()
                .look_at(&method, (Some(name), "/api/v1/shipments"), &headers)
                .is_ok()
        };
        let name = "localhost:7373";
        let origin = |origin| [(header::ORIGIN, origin)];
        // A script without a browser says nothing of it.
        assert!(look(Method::POST, name, &[]));
        assert!(look(Method::POST, name, &origin("http://localhost:7373")));
        assert!(look(Method::POST, name, &origin("https://bench.example")));
        for foreign in [
            "http://localhost:7374",
            "http://127.0.0.1:7373",
            "https://evil.example",
            "http://bench.example",
            "null",
            "",
        ] {
            assert!(!look(Method::PUT, name, &origin(foreign)), "{foreign}");
            assert!(look(Method::GET, name, &origin(foreign)), "{foreign}");
        }
        assert!(!look(Method::DELETE, name, &[(FETCH_SITE, "cross-site")]));
        assert!(look(Method::DELETE, name, &[(FETCH_SITE, "same-origin")]));
        assert!(!look(Method::GET, name, &[(FETCH_SITE, "cross-site")]));
        assert!(look(Method::GET, name, &[(FETCH_SITE, "none")]));
    }

    #[test]
    fn what_is_no_name_and_no_origin_is_said() {
        for name in ["http://studio.example", "studio.example:80", ""] {
            assert!(Ours::of(&[], &[name.to_owned()], &[]).is_err(), "{name}");
        }
        for origin in ["studio.example", "data:text/plain,a", ""] {
            assert!(
                Ours::of(&[], &[], &[origin.to_owned()]).is_err(),
                "{origin}"
            );
        }
    }
}
