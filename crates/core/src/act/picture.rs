//! How an act looks.

use serde::Serialize;

/// One face of a picture.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PictureFace {
    /// What it is of: `card` outside, `inside` of a wall, or `goods`.
    pub of: FaceOf,
    /// Its corners: to the right and down.
    pub points: Vec<[f64; 2]>,
}

/// What a face of a picture is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum FaceOf {
    /// A wall, seen from inside.
    Inside,
    /// What goes in.
    Goods,
    /// A wall, seen from outside.
    Card,
}

/// How an act looks, in millimetres at the scale of the bench.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MovePicture {
    /// How wide it is.
    pub width: f64,
    /// How high it is.
    pub height: f64,
    /// Its faces, the ones behind first.
    pub faces: Vec<PictureFace>,
    /// Which way something moves: from, to. `None` if nothing does.
    pub arrow: Option<[[f64; 2]; 2]>,
}
