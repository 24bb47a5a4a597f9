//! House rules: what a change would do, making it, and the presets.

use axum::{
    Json,
    extract::{Path, State},
    http::StatusCode,
};
use hummock_core::{
    Refusal,
    house::{Choices, HouseRules, preset_choices, presets},
    shipment::{House, Impact},
};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

use crate::{app::App, body::Body, problem::Problem};

/// Rules that somebody wrote, and those that they are based on.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct RulesRequest {
    /// The rules; their version is the one that they are based on.
    rules: HouseRules,
}

/// What a change of the house would do to one shipment.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct Affected {
    /// Which.
    id: Uuid,
    /// The title of its piece.
    title: String,
    /// What would change.
    impact: Impact,
}

/// What a change of the house would do.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct Effects {
    /// How many shipments were looked at.
    looked_at: usize,
    /// Those that would change.
    pub(crate) affected: Vec<Affected>,
}

/// A named set of rules.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct PresetView {
    /// What it is for; empty for the studio's own.
    why: String,
    /// Whether the studio made it, and may drop it.
    own: bool,
    /// The rules.
    rules: HouseRules,
    /// What a single shipment chooses in order to follow it.
    choices: Choices,
}

impl App {
    /// Returns what another house would do to the shipments on the bench.
    pub(crate) async fn effects_of(&self, then: &House) -> Result<Effects, Problem> {
        let now = self.house().await?;
        let listed = self.store.shipments(self.studio).await?;
        let looked_at = listed.len();
        let affected = listed
            .into_iter()
            .filter_map(|shipment| {
                Some(Affected {
                    impact: Impact::of(&shipment.inputs, &now, then)?,
                    id: shipment.id,
                    title: shipment.inputs.title,
                })
            })
            .collect();
        Ok(Effects {
            looked_at,
            affected,
        })
    }

    /// Checks rules and returns the house that would follow them.
    async fn house_with(&self, rules: HouseRules) -> Result<House, Problem> {
        let house = self.house().await?;
        rules.check()?;
        let missing: Vec<Refusal> = rules
            .materials
            .named()
            .into_iter()
            .filter(|(_, id)| !house.catalogue.has(id))
            .map(|(field, id)| {
                let says = format!("the stores hold no \"{id}\": choose a material that is there");
                Refusal::new(format!("materials.{field}"), says)
            })
            .collect();
        let mut refusals = missing;
        let known = |name: &str| preset_choices(name, &rules, &house.presets).is_some();
        for (at, line) in rules.beginnings.iter().enumerate() {
            if !known(&line.start_from) {
                let says = format!(
                    "there is no preset called \"{}\": choose one that is kept",
                    line.start_from
                );
                refusals.push(Refusal::new(format!("beginnings[{at}].start_from"), says));
            }
        }
        if !refusals.is_empty() {
            return Err(refusals.into());
        }
        Ok(House { rules, ..house })
    }

    /// Works out the bench again after a preset was kept or dropped, for the shipments that start from it.
    async fn presets_changed(&self) -> Result<(), Problem> {
        let house = self.house().await?;
        let recomputed = self.recomputed(&house).await?;
        Ok(self.store.recompute(self.studio, &recomputed).await?)
    }
}

/// Says what new rules would do to the shipments on the bench; nothing is stored.
#[utoipa::path(
    operation_id = "preview_rules", post, path = "/studio/rules/preview", tag = "studio", request_body = RulesRequest,
    responses(
        (status = 200, description = "The shipments that would change, and by how much", body = Effects),
        (status = 422, description = "Values out of range, each with its field", body = Problem),
    ),
)]
pub(crate) async fn preview(
    State(app): State<App>,
    Body(request): Body<RulesRequest>,
) -> Result<Json<Effects>, Problem> {
    let then = app.house_with(request.rules).await?;
    Ok(Json(app.effects_of(&then).await?))
}

/// Makes new rules the ones of the house, and works out its shipments by them.
///
/// A shipment that can't be planned by them keeps what it has.
#[utoipa::path(
    operation_id = "change_rules", put, path = "/studio/rules", tag = "studio", request_body = RulesRequest,
    responses(
        (status = 200, description = "The rules, one version further", body = HouseRules),
        (status = 409, description = "They changed since", body = Problem),
        (status = 422, description = "Values out of range, each with its field", body = Problem),
    ),
)]
pub(crate) async fn change(
    State(app): State<App>,
    Body(request): Body<RulesRequest>,
) -> Result<Json<HouseRules>, Problem> {
    let mut then = app.house_with(request.rules).await?;
    then.rules.version += 1;
    let recomputed = app.recomputed(&then).await?;
    app.store
        .change_rules(app.studio, &then.rules, &recomputed)
        .await?;
    Ok(Json(then.rules))
}

/// Returns the named sets of rules to start from: five that come with Hummock, and the studio's own.
#[utoipa::path(
    operation_id = "list_presets", get, path = "/studio/presets", tag = "studio",
    responses((status = 200, description = "Every preset", body = [PresetView])),
)]
pub(crate) async fn list_presets(State(app): State<App>) -> Result<Json<Vec<PresetView>>, Problem> {
    let house = app.house().await?.rules;
    let own = app.store.presets(app.studio).await?;
    let given = presets(&house).into_iter().map(|preset| PresetView {
        why: preset.why.to_owned(),
        own: false,
        choices: preset.rules.as_choices(&house),
        rules: preset.rules,
    });
    let kept = own.into_iter().map(|rules| PresetView {
        why: String::new(),
        own: true,
        choices: rules.as_choices(&house),
        rules,
    });
    Ok(Json(given.chain(kept).collect()))
}

/// Keeps rules under a name of the studio's own, in place of those that were kept under it.
#[utoipa::path(
    operation_id = "keep_preset", post, path = "/studio/presets", tag = "studio", request_body = RulesRequest,
    responses(
        (status = 204, description = "They are kept"),
        (status = 422, description = "Values out of range, or a name that is taken", body = Problem),
    ),
)]
pub(crate) async fn keep_preset(
    State(app): State<App>,
    Body(request): Body<RulesRequest>,
) -> Result<StatusCode, Problem> {
    let mut house = app.house_with(request.rules).await?;
    let name = house.rules.name.trim().to_owned();
    let taken = presets(&house.rules)
        .iter()
        .any(|preset| preset.rules.name == name);
    if taken {
        let says = format!("\"{name}\" comes with Hummock: give your own another name");
        return Err(vec![Refusal::new("name", says)].into());
    }
    house.rules.name = name;
    app.store.keep_preset(app.studio, &house.rules).await?;
    app.presets_changed().await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Drops a preset of the studio's own.
#[utoipa::path(
    operation_id = "drop_preset", delete, path = "/studio/presets/{name}", tag = "studio",
    params(("name" = String, Path, description = "Which")),
    responses(
        (status = 204, description = "It is gone"),
        (status = 404, description = "The studio has none of that name", body = Problem),
    ),
)]
pub(crate) async fn drop_preset(
    State(app): State<App>,
    Path(name): Path<String>,
) -> Result<StatusCode, Problem> {
    if app.store.drop_preset(app.studio, &name).await? {
        app.presets_changed().await?;
        Ok(StatusCode::NO_CONTENT)
    } else {
        Err(Problem::not_found(
            "preset of that name of the studio’s own",
        ))
    }
}
