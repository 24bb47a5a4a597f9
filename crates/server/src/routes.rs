//! Which handler answers which method and path; with the feature `schema` also how each is described.

use axum::{Router, extract::DefaultBodyLimit, routing::MethodRouter};
#[cfg(feature = "schema")]
use utoipa::openapi::{OpenApi, path::Paths};
#[cfg(feature = "schema")]
use utoipa_axum::router::OpenApiRouter;

use crate::app::App;

/// Routes of the API, relative to its version.
#[derive(Default)]
pub(crate) struct Routes {
    router: Router<App>,
    /// How each is described; worked out by whoever asks, for no server does.
    #[cfg(feature = "schema")]
    described: Vec<Told>,
}

/// Adds how one route is described.
#[cfg(feature = "schema")]
type Told = fn(OpenApiRouter<App>) -> OpenApiRouter<App>;

/// Returns [`Routes`] of lines such as `get "/shipments/{id}" => show`.
///
/// The description repeats method and path in its own attribute; [`Routes::description`] panics where the two differ, which a
/// test would see.
macro_rules! routes {
    ($($method:ident $path:literal => $($handler:ident)::+),* $(,)?) => {{
        let routes = $crate::routes::Routes::default();
        $(
            let routes = routes.on($path, axum::routing::$method($($handler)::+));
            #[cfg(feature = "schema")]
            let routes = routes.described(|all| {
                let told = utoipa_axum::routes!($($handler)::+);
                $crate::routes::is_about(&told.1, stringify!($method), $path);
                all.routes(told)
            });
        )*
        routes
    }};
}
pub(crate) use routes;

impl Routes {
    pub(crate) fn on(mut self, path: &str, method: MethodRouter<App>) -> Self {
        self.router = self.router.route(path, method);
        self
    }

    /// Puts a layer around what is there already.
    pub(crate) fn limited(mut self, limit: DefaultBodyLimit) -> Self {
        self.router = self.router.layer(limit);
        self
    }

    pub(crate) fn merge(mut self, other: Self) -> Self {
        self.router = self.router.merge(other.router);
        #[cfg(feature = "schema")]
        {
            self.described.extend(other.described);
        }
        self
    }

    /// Returns the router of all of them.
    pub(crate) fn into_router(self) -> Router<App> {
        self.router
    }
}

#[cfg(feature = "schema")]
impl Routes {
    /// Adds how a route is described.
    pub(crate) fn described(mut self, told: Told) -> Self {
        self.described.push(told);
        self
    }

    /// Returns the description of all of them, under a path.
    pub(crate) fn description(self, under: &str, head: OpenApi) -> OpenApi {
        let described = self.described.into_iter();
        let all = described.fold(OpenApiRouter::new(), |all, told| told(all));
        OpenApiRouter::with_openapi(head)
            .nest(under, all)
            .split_for_parts()
            .1
    }
}

/// Holds a description to the route that it is of.
#[cfg(feature = "schema")]
pub(crate) fn is_about(paths: &Paths, method: &str, path: &str) {
    let told = serde_json::to_value(paths).expect("a description can be written");
    let told = told.get(path).and_then(|item| item.get(method));
    assert!(told.is_some(), "{method} {path} is described as another");
}
