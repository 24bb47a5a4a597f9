//! Quick sums: one formula each, in plain numbers.

use axum::Json;
use hummock_core::odds::FallDanger;
use hummock_core::sums::{
    ArrangementAnswer, ArrangementSum, BaseAnswer, BaseSum, BillableAnswer, BillableSum,
    BoundaryAnswer, BoundarySum, BoxAnswer, BoxSum, ContactSheetAnswer, ContactSheetSum,
    CornerPocketAnswer, CornerPocketSum, CurveAnswer, CurveSum, CushionAnswer, CushionSum,
    FallAnswer, FallSum, FallsSum, GlassAnswer, GlassSum, HarmAnswer, HarmSum, OddsAnswer, OddsSum,
    PiercedAnswer, PiercedSum, PressInAnswer, PressInSum, PressedAnswer, PressedSum, RollAnswer,
    RollSum, SavedCartonAnswer, SavedCartonSum, SeriesAnswer, SeriesSum, StackAnswer, StackSum,
    Sum, WrapAnswer, WrapSum,
};

use crate::{
    body::Body,
    problem::Problem,
    routes::{Routes, routes},
};

/// Declares the handler of a sum and its description.
macro_rules! sums {
    ($($(#[$doc:meta])* $name:ident, $path:literal: $sum:ident -> $answer:ident;)*) => {
        $(
            $(#[$doc])*
            #[cfg_attr(feature = "schema", utoipa::path(
                operation_id = $path, post, path = $path, tag = "sums", request_body = $sum,
                responses(
                    (status = 200, description = "The answer, unrounded", body = $answer),
                    (status = 422, description = "Numbers out of range, each with its field", body = Problem),
                ),
            ))]
            pub(crate) async fn $name(Body(sum): Body<$sum>) -> Result<Json<$answer>, Problem> {
                Ok(Json(sum.work()?))
            }
        )*

        /// Returns the routes of all sums.
        pub(crate) fn routes() -> Routes {
            routes![$(post $path => $name),*]
        }
    };
}

sums! {
    /// Works out a folded card corner pocket.
    corner_pocket, "/sums/corner-pocket": CornerPocketSum -> CornerPocketAnswer;
    /// Works out a contact sheet and its strips.
    contact_sheet, "/sums/contact-sheet": ContactSheetSum -> ContactSheetAnswer;
    /// Works out the sheet to cut for a wrap.
    wrap, "/sums/wrap": WrapSum -> WrapAnswer;
    /// Works out one cushion: shock, drop survived, thickness needed, best pad.
    cushion, "/sums/cushion": CushionSum -> CushionAnswer;
    /// Works out a cushion curve to draw.
    cushion_curve, "/sums/cushion-curve": CurveSum -> CurveAnswer;
    /// Works out cushions in series.
    series, "/sums/series": SeriesSum -> SeriesAnswer;
    /// Works out a fall on an edge or a corner.
    fall, "/sums/fall": FallSum -> FallAnswer;
    /// Works out what the falls of a journey do to a piece in its cushions.
    falls, "/sums/falls": FallsSum -> FallDanger;
    /// Works out how far boards over something soft keep a load off the face.
    pressed, "/sums/pressed": PressedSum -> PressedAnswer;
    /// Works out what a pane or a mirror takes, by its size.
    glass, "/sums/glass": GlassSum -> GlassAnswer;
    /// Works out the odds of a plan against its reference.
    odds, "/sums/odds": OddsSum -> OddsAnswer;
    /// Works out how often a piece of a kind and a size arrives damaged, by the starting values.
    base, "/sums/base": BaseSum -> BaseAnswer;
    /// Works out how easily something goes through to the art.
    pierced, "/sums/pierced": PiercedSum -> PiercedAnswer;
    /// Works out what a damaged parcel costs on average.
    harm, "/sums/harm": HarmSum -> HarmAnswer;
    /// Works out a damage boundary.
    boundary, "/sums/boundary": BoundarySum -> BoundaryAnswer;
    /// Works out how far a board gives under a corner.
    press_in, "/sums/press-in": PressInSum -> PressInAnswer;
    /// Works out what a corrugated box bears.
    stack, "/sums/stack": StackSum -> StackAnswer;
    /// Works out a roll and its tube.
    roll, "/sums/roll": RollSum -> RollAnswer;
    /// Works out a box blank.
    carton, "/sums/box": BoxSum -> BoxAnswer;
    /// Works out how a saved carton is cut down, made shorter, or made deeper with a sleeve.
    saved_carton, "/sums/saved-carton": SavedCartonSum -> SavedCartonAnswer;
    /// Finds the order and the facings in which up to twelve wrapped pieces lie in one box, or judges one that is given.
    arrangement, "/sums/arrangement": ArrangementSum -> ArrangementAnswer;
    /// Works out the weight that is billed.
    billable_weight, "/sums/billable-weight": BillableSum -> BillableAnswer;
}
