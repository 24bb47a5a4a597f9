//! Who is let through the door: on loopback everybody, on the local network whoever is signed in.

use axum::{
    extract::{Request, State},
    http::{HeaderMap, HeaderName, HeaderValue, header},
    middleware::Next,
    response::{IntoResponse, Response},
};
use hummock_store::{StudioId, TokenDigest};
use sha2::{Digest as _, Sha256};
use uuid::Uuid;

use crate::{app::App, problem::Problem};

/// Which door a request comes to.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Door {
    /// Loopback: whoever sits at the machine, at the desk of this studio unless the browser says another.
    Machine(StudioId),
    /// The local network: devices of this studio.
    Network(StudioId),
}

/// Who asks.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Caller {
    /// Whoever sits at the machine.
    Machine,
    /// A device that is signed in.
    Device(Uuid),
}

/// Which studio a browser at the machine shows: its id. Without it, or where there is none of that id, it is the one that was
/// opened at the start.
const STUDIO_COOKIE: &str = "hummock-studio";
/// Says whose an answer is, so that a page keeps what it keeps for that studio alone.
const STUDIO_HEADER: HeaderName = HeaderName::from_static("x-hummock-studio");
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

/// Has a browser at the machine show a studio.
pub(crate) fn studio_cookie(studio: StudioId) -> String {
    let seconds = COOKIE_DAYS * 24 * 60 * 60;
    format!("{STUDIO_COOKIE}={studio}; Path=/; Max-Age={seconds}; HttpOnly; SameSite=Strict")
}

/// Finds a cookie by its name.
fn shown<'a>(headers: &'a HeaderMap, cookie: &str) -> Option<&'a str> {
    headers
        .get_all(header::COOKIE)
        .iter()
        .filter_map(|value| value.to_str().ok())
        .flat_map(|value| value.split(';'))
        .find_map(|pair| pair.trim().strip_prefix(cookie)?.strip_prefix('='))
}

/// Says to the handlers whose studio a request is about, and to whoever asked.
pub(crate) async fn say_whose(
    State((app, door)): State<(App, Door)>,
    mut request: Request,
    next: Next,
) -> Response {
    let studio = match door {
        Door::Machine(opened) => chosen(&app, request.headers(), opened).await,
        Door::Network(studio) => Ok(studio),
    };
    match studio {
        Ok(studio) => {
            request.extensions_mut().insert(studio);
            let mut response = next.run(request).await;
            let says = HeaderValue::try_from(studio.to_string());
            let says = says.expect("an id is made of letters and dashes");
            response.headers_mut().insert(STUDIO_HEADER, says);
            response
        }
        Err(problem) => problem.into_response(),
    }
}

/// Lets a request in when it is known who asks, and says so to the handlers.
pub(crate) async fn let_known_in(
    State((app, door)): State<(App, Door)>,
    mut request: Request,
    next: Next,
) -> Response {
    let caller = match door {
        Door::Machine(_) => Ok(Caller::Machine),
        Door::Network(studio) => device(&app, request.headers(), studio)
            .await
            .map(Caller::Device),
    };
    match caller {
        Ok(caller) => {
            request.extensions_mut().insert(caller);
            next.run(request).await
        }
        Err(problem) => problem.into_response(),
    }
}

/// Returns the studio that a browser at the machine shows.
async fn chosen(app: &App, headers: &HeaderMap, opened: StudioId) -> Result<StudioId, Problem> {
    let wanted = shown(headers, STUDIO_COOKIE).and_then(|id| id.parse().ok());
    let Some(wanted) = wanted else {
        return Ok(opened);
    };
    Ok(app.store.studio_of(wanted).await?.unwrap_or(opened))
}

/// Returns the device that asks, if it is signed in to a studio.
async fn device(app: &App, headers: &HeaderMap, studio: StudioId) -> Result<Uuid, Problem> {
    let digest = shown(headers, COOKIE).map(digest);
    let digest = digest.ok_or_else(Problem::signed_out)?;
    let known = app.store.of(studio).device_that_shows(&digest).await?;
    known.ok_or_else(Problem::signed_out)
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
            assert_eq!(shown(&headers, COOKIE), found, "{cookies:?}");
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
        assert_eq!(shown(&headers, COOKIE).map(digest), Some(token.digest()));
    }
}
