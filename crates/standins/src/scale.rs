//! A scale that is none: it says what it is told lies on it, as a real one would.

use std::{
    convert::Infallible,
    sync::{Arc, Mutex, PoisonError},
    time::Duration,
};

use axum::{
    Json, Router,
    extract::State,
    http::StatusCode,
    response::{
        IntoResponse, Response,
        sse::{Event, KeepAlive, Sse},
    },
    routing::get,
};
use futures_util::stream;
use hummock_core::{quantity::Mass, weigh::Sample};
use serde::{Deserialize, Serialize};
use tokio::time::{Instant, MissedTickBehavior, interval};

/// What lies on the scale, and how it behaves.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(default, deny_unknown_fields)]
pub struct OnIt {
    /// What lies on it.
    pub mass_g: f64,
    /// Readings swing by so much either way.
    pub noise_g: f64,
    /// They drift by so much a second.
    pub drift_g_per_s: f64,
    /// More than this is an overload.
    pub most_g: f64,
    /// Whether its cable is out.
    pub unplugged: bool,
}

impl Default for OnIt {
    fn default() -> Self {
        Self {
            mass_g: 0.0,
            noise_g: 1.5,
            drift_g_per_s: 0.0,
            most_g: 60_000.0,
            unplugged: false,
        }
    }
}

/// A scale that is none.
#[derive(Debug)]
pub struct Scale {
    now: Mutex<Now>,
}

#[derive(Debug, Clone, Copy)]
struct Now {
    on_it: OnIt,
    /// What it read when that was laid on it, and when.
    from_g: f64,
    since: Instant,
}

/// Readings come this often.
const EVERY: Duration = Duration::from_millis(150);
/// It comes near what lies on it with this time constant.
const COMES_TO_REST: Duration = Duration::from_millis(220);

impl Default for Scale {
    fn default() -> Self {
        Self {
            now: Mutex::new(Now {
                on_it: OnIt::default(),
                from_g: 0.0,
                since: Instant::now(),
            }),
        }
    }
}

impl Now {
    fn reads(&self, swing: f64) -> Sample {
        let after = self.since.elapsed();
        let left = (-after.as_secs_f64() / COMES_TO_REST.as_secs_f64()).exp();
        let rests = self.on_it.mass_g + (self.from_g - self.on_it.mass_g) * left;
        let reads =
            rests + self.on_it.drift_g_per_s * after.as_secs_f64() + self.on_it.noise_g * swing;
        if reads > self.on_it.most_g {
            return Sample::Overload;
        }
        Sample::Reads {
            // It shows whole grams.
            mass: Mass::g(reads.round()),
        }
    }
}

impl Scale {
    /// Lays something on it, or has it behave otherwise.
    pub fn lay(&self, on_it: OnIt) {
        let mut now = self.now.lock().unwrap_or_else(PoisonError::into_inner);
        let from_g = match now.reads(0.0) {
            Sample::Reads { mass } => mass.as_g(),
            Sample::Overload => now.on_it.mass_g,
        };
        *now = Now {
            on_it,
            from_g,
            since: Instant::now(),
        };
    }

    /// Returns what lies on it.
    pub fn on_it(&self) -> OnIt {
        self.now
            .lock()
            .unwrap_or_else(PoisonError::into_inner)
            .on_it
    }

    /// What it says at a turn; `None` while its cable is out.
    fn says(&self, turn: u64) -> Option<Sample> {
        let now = *self.now.lock().unwrap_or_else(PoisonError::into_inner);
        // It swings to and fro, always the same way.
        const SWINGS: [f64; 7] = [0.0, 0.8, -0.6, 1.0, -1.0, 0.4, -0.3];
        let swing = SWINGS[usize::try_from(turn % 7).unwrap_or_default()];
        (!now.on_it.unplugged).then(|| now.reads(swing))
    }
}

pub(crate) fn routes(scale: Arc<Scale>) -> Router {
    Router::new()
        .route("/", get(show).put(lay))
        .route("/readings", get(readings))
        .with_state(scale)
}

async fn show(State(scale): State<Arc<Scale>>) -> Json<OnIt> {
    Json(scale.on_it())
}

async fn lay(
    State(scale): State<Arc<Scale>>,
    Json(on_it): Json<OnIt>,
) -> Result<Json<OnIt>, (StatusCode, String)> {
    let numbers = [
        on_it.mass_g,
        on_it.noise_g,
        on_it.drift_g_per_s,
        on_it.most_g,
    ];
    if numbers.iter().any(|number| !(-1e6..=1e6).contains(number)) {
        let says = "numbers are in grams, from -1000000 to 1000000".to_owned();
        return Err((StatusCode::UNPROCESSABLE_ENTITY, says));
    }
    scale.lay(on_it);
    Ok(Json(on_it))
}

/// Sends a reading every so often, until its cable is pulled out.
async fn readings(State(scale): State<Arc<Scale>>) -> Response {
    if scale.says(0).is_none() {
        return StatusCode::SERVICE_UNAVAILABLE.into_response();
    }
    let mut ticks = interval(EVERY);
    ticks.set_missed_tick_behavior(MissedTickBehavior::Delay);
    let sent = stream::unfold(
        (scale, ticks, 0_u64),
        |(scale, mut ticks, turn)| async move {
            ticks.tick().await;
            let sample = scale.says(turn)?;
            let event = Event::default().json_data(sample).ok()?;
            Some((Ok::<_, Infallible>(event), (scale, ticks, turn + 1)))
        },
    );
    Sse::new(sent)
        .keep_alive(KeepAlive::default())
        .into_response()
}
