//! Which handler answers which method and path; with the feature `schema` also how each is described.

use axum::{Router, routing::MethodRouter};

use crate::app::App;

/// Routes of the API, relative to its version.
#[derive(Default)]
pub(crate) struct Routes {
    router: Router<App>,
    #[cfg(feature = "schema")]
    described: utoipa_axum::router::OpenApiRouter<App>,
}

/// Returns [`Routes`] of lines such as `get "/shipments/{id}" => show`.
///
/// The description repeats method and path in its own attribute; [`Routes::described`] panics where the two differ, which a
/// test of the description would see.
macro_rules! routes {
    ($($method:ident $path:literal => $($handler:ident)::+),* $(,)?) => {{
        let routes = $crate::routes::Routes::default();
        $(
            let routes = routes.on($path, axum::routing::$method($($handler)::+));
            #[cfg(feature = "schema")]
            let routes = routes.described(
                stringify!($method),
                $path,
                utoipa_axum::routes!($($handler)::+),
            );
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
    pub(crate) fn limited(mut self, limit: axum::extract::DefaultBodyLimit) -> Self {
        self.router = self.router.layer(limit);
        self
    }

    pub(crate) fn merge(mut self, other: Self) -> Self {
        self.router = self.router.merge(other.router);
        #[cfg(feature = "schema")]
        {
            self.described = self.described.merge(other.described);
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
    pub(crate) fn described(
        mut self,
        method: &str,
        path: &str,
        told: utoipa_axum::router::UtoipaMethodRouter<App>,
    ) -> Self {
        let paths = serde_json::to_value(&told.1).expect("a description can be written");
        assert!(
            paths
                .get(path)
                .is_some_and(|item| item.get(method).is_some()),
            "{method} {path} is described as another: {paths}"
        );
        self.described = self.described.routes(told);
        self
    }

    /// Returns the description of all of them, under a path.
    pub(crate) fn description(
        self,
        under: &str,
        head: utoipa::openapi::OpenApi,
    ) -> utoipa::openapi::OpenApi {
        utoipa_axum::router::OpenApiRouter::with_openapi(head)
            .nest(under, self.described)
            .split_for_parts()
            .1
    }
}
