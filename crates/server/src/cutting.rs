//! Laying parts out on sheets: a search that takes its time, with a hard stop.

use std::{
    sync::{
        Arc,
        atomic::{AtomicBool, Ordering},
    },
    time::{Duration, Instant},
};

use axum::Json;
use hummock_core::sums::{CuttingAnswer, CuttingSum};
use tokio::sync::Semaphore;

use crate::{
    body::Body,
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
};

/// How many searches run at once; others wait for their turn.
static AT_ONCE: Semaphore = Semaphore::const_new(2);
/// A search that names no budget is stopped after this.
const USUAL_BUDGET: Duration = Duration::from_secs(20);

/// Stops a search when nobody waits for it any more.
struct Gone(Arc<AtomicBool>);

impl Drop for Gone {
    fn drop(&mut self) {
        self.0.store(true, Ordering::Relaxed);
    }
}

/// Lays parts out on sheets and numbers the cuts.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "/sums/cutting", post, path = "/sums/cutting", tag = "sums", request_body = CuttingSum,
    responses(
        (status = 200, description = "The cheapest way of cutting that was found", body = CuttingAnswer),
        (status = 422, description = "Numbers out of range, a part larger than every sheet, or too few sheets, each with its field", body = Problem),
    ),
))]
pub(crate) async fn cutting(Body(sum): Body<CuttingSum>) -> Result<Json<CuttingAnswer>, Problem> {
    let budget = sum.budget_ms.map_or(USUAL_BUDGET, Duration::from_millis);
    let search = move |left: &dyn Fn() -> bool| {
        let begun = Instant::now();
        sum.work_until(&mut || left() || begun.elapsed() > budget)
    };
    Ok(Json(searched(search).await??))
}

/// Runs a search in its turn; it can ask whether nobody waits for it any more.
pub(crate) async fn searched<T: Send + 'static>(
    search: impl FnOnce(&dyn Fn() -> bool) -> T + Send + 'static,
) -> Result<T, Problem> {
    let _turn = AT_ONCE.acquire().await.map_err(|_| Problem::slip())?;
    let left = Arc::new(AtomicBool::new(false));
    let _gone = Gone(Arc::clone(&left));
    Ok(beside(move || search(&|| left.load(Ordering::Relaxed))).await)
}

pub(crate) fn routes() -> Routes {
    routes![
        post "/sums/cutting" => cutting,
    ]
}
