//! What is asked and answered about layouts.

use hummock_core::{
    quantity::Currency,
    stock::{BatchPlan, CutTool, DrawnBlank, DrawnLines, LayoutOf},
};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// What to lay out.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct CuttingRequest {
    /// Chosen by the caller, so that asking twice makes one.
    #[serde(default)]
    pub(super) id: Option<Uuid>,
    /// Whose parts, 20 at most; none where only blanks that were drawn elsewhere are cut.
    #[serde(default)]
    pub(super) shipments: Vec<Uuid>,
    /// Blanks that were drawn elsewhere, 20 at most.
    #[serde(default)]
    pub(super) blanks: Vec<DrawnLines>,
    /// Which of their parts; all when left out.
    #[serde(default)]
    pub(super) of: LayoutOf,
    /// What cuts; a knife when left out.
    #[serde(default)]
    pub(super) tool: CutTool,
    /// Steps for each choice of sheets, 0 to 100 000; 1000 when left out.
    #[serde(default = "thousand")]
    pub(super) effort: u64,
}

/// What to look for once more.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct AgainRequest {
    /// Another seed finds another layout; the better of the two stays, unless a plan has changed.
    pub(super) seed: u64,
    /// Steps for each choice of sheets, 0 to 100 000; 1000 when left out.
    #[serde(default = "thousand")]
    pub(super) effort: u64,
    /// Stopped after so many milliseconds with the best so far, 1 to 20 000; after 5000 when left out.
    #[serde(default)]
    pub(super) budget_ms: Option<u64>,
    /// What cuts; as before when left out.
    #[serde(default)]
    pub(super) tool: Option<CutTool>,
    /// Which parts; as before when left out.
    #[serde(default)]
    pub(super) of: Option<LayoutOf>,
}

const fn thousand() -> u64 {
    1000
}

/// What is kept of a sheet that was cut.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct CutRequest {
    /// Each piece of its rest that is kept, counted from 0.
    #[serde(default)]
    pub(super) keep: Vec<usize>,
    /// Where they are put.
    #[serde(default)]
    pub(super) place: String,
    /// The `print` of the layout that was looked at; whatever it is by now when left out.
    #[serde(default)]
    pub(super) print: Option<String>,
}

/// A layout as it is stored.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(super) struct Kept {
    pub(super) of: LayoutOf,
    pub(super) tool: CutTool,
    pub(super) seed: u64,
    pub(super) shipments: Vec<KeptShipment>,
    #[serde(default)]
    pub(super) blanks: Vec<DrawnBlank>,
    /// The money of every price in it.
    #[serde(default)]
    pub(super) currency: Option<Currency>,
    pub(super) laid: BatchPlan,
}

#[derive(Debug, Clone, Serialize, Deserialize)]
pub(super) struct KeptShipment {
    pub(super) id: Uuid,
    pub(super) title: String,
    pub(super) fingerprint: String,
}

/// A layout.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CuttingView {
    /// The id of the layout.
    pub(super) id: Uuid,
    /// In seconds since 1970.
    pub(super) made_at: i64,
    /// Changes whenever it is laid out anew; send it with a sheet that is cut.
    pub(super) print: String,
    /// Which parts it is of.
    pub(super) of: LayoutOf,
    /// What cuts.
    pub(super) tool: CutTool,
    /// What the blade takes away beyond each line.
    pub(super) kerf_mm: f64,
    /// Whose parts they are; a part names one by its place here.
    pub(super) shipments: Vec<CuttingShipment>,
    /// Blanks that were drawn elsewhere; their parts name the shipment after the last.
    pub(super) blanks: Vec<DrawnBlank>,
    /// The sheets, material by material.
    pub(super) laid: BatchPlan,
    /// How far it is over the least that it could cost, as a share; `None` if no new sheet is opened.
    pub(super) gap: Option<f64>,
    /// The money of every price.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub(super) currency: Currency,
    /// The sheets that were cut.
    pub(super) done: Vec<CutDone>,
    /// New sheets that the shelf lacks for what is not cut yet.
    pub(super) lacks: Vec<Lacking>,
}

/// A shipment whose parts are cut.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CuttingShipment {
    /// The id of the shipment.
    pub(super) id: Uuid,
    /// What it is called.
    pub(super) title: String,
    /// Whether its plan has changed since, or it is gone.
    pub(super) changed: bool,
    /// Whether its wrapped piece was measured, so that its box fits what is there.
    pub(super) wrapped: bool,
}

/// A sheet that was cut.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CutDone {
    /// Which, counted from 1.
    pub(super) n: usize,
    /// In seconds since 1970.
    pub(super) at: i64,
    /// What was kept of it, as it is called.
    pub(super) kept: Vec<String>,
}

/// Sheets of a size that the shelf lacks.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct Lacking {
    /// What they are of.
    pub(super) name: String,
    /// Across.
    pub(super) width_mm: f64,
    /// Up.
    pub(super) height_mm: f64,
    /// How many are still to be opened.
    pub(super) needs: u32,
    /// How many there are.
    pub(super) left: i64,
}

/// A layout among others.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CuttingRow {
    /// The id of the layout.
    pub(super) id: Uuid,
    /// In seconds since 1970.
    pub(super) made_at: i64,
    /// Whose parts.
    pub(super) titles: Vec<String>,
    /// Which parts it is of.
    pub(super) of: LayoutOf,
    /// How many sheets it takes.
    pub(super) sheets: usize,
}
