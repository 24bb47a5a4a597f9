//! Who is let through the door: on loopback everybody, on the local network whoever is signed in.

use axum::{
    extract::{Request, State},
    http::{HeaderMap, header},
    middleware::Next,
    response::{IntoResponse, Response},
};
use hummock_store::TokenDigest;
use sha2::{Digest as _, Sha256};
use uuid::Uuid;

use crate::{app::App, problem::Problem};

/// Which door a request comes to.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Door {
    /// Loopback: whoever sits at the machine.
    Machine,
    /// The local network.
    Network,
}

/// Who asks.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Caller {
    /// Whoever sits at the machine.
    Machine,
    /// A device that is signed in.
    Device(Uuid),
}

/// The prefix binds it to this host, to TLS and to every path.
const COOKIE: &str = "__Host-hummock";
const COOKIE_DAYS: u32 = 400;

/// What a device shows to be known again.
pub(super) struct Token(String);

impl Token {
    /// Draws one that nobody guesses.
    pub(super) fn drawn() -> Result<Self, getrandom::Error> {
        let mut bytes = [0; 32];
        getrandom::fill(&mut bytes)?;
        Ok(Self(
            bytes.iter().map(|byte| format!("{byte:02x}")).collect(),
        ))
    }

    pub(super) fn digest(&self) -> TokenDigest {
        digest(&self.0)
    }

    /// Returns the header that hands it to the device.
    pub(super) fn cookie(&self) -> String {
        let seconds = COOKIE_DAYS * 24 * 60 * 60;
        format!(
            "{COOKIE}={}; Path=/; Max-Age={seconds}; Secure; HttpOnly; SameSite=Strict",
            self.0
        )
    }
}

fn digest(token: &str) -> TokenDigest {
    Sha256::digest(token).into()
}

/// Finds what a device shows.
fn shown(headers: &HeaderMap) -> Option<&str> {
    headers
        .get_all(header::COOKIE)
        .iter()
        .filter_map(|value| value.to_str().ok())
        .flat_map(|value| value.split(';'))
        .find_map(|pair| pair.trim().strip_prefix(COOKIE)?.strip_prefix('='))
}

/// Lets a request in when it is known who asks, and says so to the handlers.
pub(crate) async fn let_known_in(
    State((app, door)): State<(App, Door)>,
    mut request: Request,
    next: Next,
) -> Response {
    let caller = match door {
        Door::Machine => Ok(Caller::Machine),
        Door::Network => match shown(request.headers()).map(digest) {
            None => Err(Problem::signed_out()),
            Some(digest) => match app.store.device_that_shows(app.studio, &digest).await {
                Ok(Some(device)) => Ok(Caller::Device(device)),
                Ok(None) => Err(Problem::signed_out()),
                Err(error) => Err(error.into()),
            },
        },
    };
    match caller {
        Ok(caller) => {
            request.extensions_mut().insert(caller);
            next.run(request).await
        }
        Err(problem) => problem.into_response(),
    }
}

#[cfg(test)]
mod tests {
    use axum::http::HeaderValue;

    use super::*;

    #[test]
    fn what_is_shown_is_found_among_other_cookies() {
        for (cookies, found) in [
            (&["__Host-hummock=abc"][..], Some("abc")),
            (&["a=b; __Host-hummock=abc; c=d"], Some("abc")),
            (&["a=b", "__Host-hummock=abc"], Some("abc")),
            (&["x__Host-hummock=abc"], None),
            (&["__Host-hummocks=abc"], None),
            (&[], None),
        ] {
            let headers = cookies
                .iter()
                .map(|&cookie| (header::COOKIE, HeaderValue::from_static(cookie)))
                .collect();
            assert_eq!(shown(&headers), found, "{cookies:?}");
        }
    }

    #[test]
    fn a_token_goes_out_to_this_server_by_tls_and_to_no_script() {
        let token = Token::drawn().expect("chance");
        let cookie = token.cookie();
        for part in ["Secure", "HttpOnly", "SameSite=Strict", "Path=/"] {
            assert!(cookie.split("; ").any(|has| has == part), "{cookie}");
        }
        let sent = cookie.split(';').next().expect("the pair").to_owned();
        let headers = [(header::COOKIE, HeaderValue::try_from(sent).expect("ASCII"))];
        let headers = headers.into_iter().collect();
        assert_eq!(shown(&headers).map(digest), Some(token.digest()));
    }
}
