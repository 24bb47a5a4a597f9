//! House rules: what a change would do, making it, and the presets.

use std::sync::Arc;

use axum::{Json, http::StatusCode};
use hummock_core::{
    Refusal, Refusals,
    house::{Choices, HouseRules, preset_choices, presets},
    shipment::{House, Impact},
};
use hummock_store::{HouseAt, SettingRefused};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

use crate::{
    body::{Body, NameInPath},
    desk::Desk,
    problem::Problem,
    rework::beside,
};

/// Rules that somebody wrote, and those that they are based on.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct RulesRequest {
    /// The rules; their version is the one that they are based on.
    rules: HouseRules,
}

/// What a change of the house would do to one shipment.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct Affected {
    /// The id of the shipment.
    id: Uuid,
    /// The title of its piece.
    title: String,
    /// What would change.
    impact: Impact,
}

/// What a change of the house would do.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct Effects {
    /// How many shipments were looked at.
    looked_at: usize,
    /// Those that would change.
    pub(crate) affected: Vec<Affected>,
}

/// A named set of rules.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
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

impl Desk {
    /// Returns what another house would do to the shipments on the bench.
    pub(crate) async fn effects_of(
        &self,
        now: Arc<HouseAt>,
        then: House,
    ) -> Result<Effects, Problem> {
        let listed = self.store.on_the_bench().await?;
        Ok(beside(move || Effects {
            looked_at: listed.len(),
            affected: listed
                .into_iter()
                .filter_map(|shipment| {
                    Some(Affected {
                        impact: Impact::of(&shipment.inputs, &now.house, &then)?,
                        id: shipment.id,
                        title: shipment.inputs.title,
                    })
                })
                .collect(),
        })
        .await)
    }

    /// Maps what the store said to a change of the house, which plans are to follow: nothing when another part of it
    /// changed meanwhile.
    pub(crate) fn changed<T>(
        &self,
        result: Result<T, SettingRefused>,
    ) -> Result<Option<T>, Problem> {
        match result {
            Err(SettingRefused::HouseMoved) => Ok(None),
            Err(refused) => Err(refused.into()),
            Ok(made) => {
                self.app.jobs.bell.notify_one();
                Ok(Some(made))
            }
        }
    }
}

/// Checks rules and returns the house that would follow them.
fn house_with(house: &House, rules: HouseRules) -> Result<House, Problem> {
    rules.check()?;
    let mut refusals: Refusals = rules
        .materials
        .named()
        .into_iter()
        .filter(|(_, id)| !house.catalogue.has(id))
        .map(|(field, id)| {
            let says = format!("no material is called \"{id}\": choose another");
            Refusal::new(format!("materials.{field}"), says)
        })
        .collect();
    let known = |name: &str| preset_choices(name, &rules, &house.presets).is_some();
    for (at, line) in rules.beginnings.iter().enumerate() {
        if !known(&line.start_from) {
            let says = format!(
                "no preset is called \"{}\": choose another",
                line.start_from
            );
            refusals.refuse(format!("beginnings[{at}].start_from"), says);
        }
    }
    refusals.done()?;
    Ok(House {
        rules: HouseRules {
            told_in: house.rules.told_in,
            home: house.rules.home.clone(),
            ..rules
        },
        ..house.clone()
    })
}

/// Says what new rules would do to the shipments on the bench; nothing is stored.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "preview_rules", post, path = "/studio/rules/preview", tag = "studio", request_body = RulesRequest,
    responses(
        (status = 200, description = "The shipments that would change, and by how much", body = Effects),
        (status = 422, description = "Values out of range, each with its field", body = Problem),
    ),
))]
pub(crate) async fn preview(
    desk: Desk,
    Body(request): Body<RulesRequest>,
) -> Result<Json<Effects>, Problem> {
    let now = desk.house().await?;
    let then = house_with(&now.house, request.rules)?;
    Ok(Json(desk.effects_of(now, then).await?))
}

/// Makes new rules the ones of the house; shipments on the bench follow them in the background.
///
/// One that is looked at is worked out first; one that can't be planned by them says why. `GET /studio/progress` tells
/// how many are still to follow.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "change_rules", put, path = "/studio/rules", tag = "studio", request_body = RulesRequest,
    responses(
        (status = 200, description = "The rules, one version further", body = HouseRules),
        (status = 409, description = "They changed since", body = Problem),
        (status = 422, description = "Values out of range, each with its field", body = Problem),
    ),
))]
pub(crate) async fn change(
    desk: Desk,
    Body(request): Body<RulesRequest>,
) -> Result<Json<HouseRules>, Problem> {
    let mut tries = desk.tries();
    loop {
        let house = tries.next().await?;
        let mut then = house_with(&house.house, request.rules.clone())?.rules;
        then.version += 1;
        let made = desk.store.change_rules(house.version, &then);
        if desk.changed(made.await)?.is_some() {
            return Ok(Json(then));
        }
    }
}

/// Returns the named sets of rules to start from: five that come with Hummock, and the studio's own.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_presets", get, path = "/studio/presets", tag = "studio",
    responses((status = 200, description = "Every preset", body = [PresetView])),
))]
pub(crate) async fn list_presets(desk: Desk) -> Result<Json<Vec<PresetView>>, Problem> {
    let house = desk.house().await?;
    let (rules, own) = (&house.house.rules, &house.house.presets);
    let given = presets(rules).into_iter().map(|preset| PresetView {
        why: preset.why.to_owned(),
        own: false,
        choices: preset.rules.as_choices(rules),
        rules: preset.rules,
    });
    let kept = own.iter().map(|own| PresetView {
        why: String::new(),
        own: true,
        choices: own.as_choices(rules),
        rules: own.clone(),
    });
    Ok(Json(given.chain(kept).collect()))
}

/// Keeps rules under a name of the studio's own, in place of those that were kept under it.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "keep_preset", post, path = "/studio/presets", tag = "studio", request_body = RulesRequest,
    responses(
        (status = 204, description = "They are kept"),
        (status = 422, description = "Values out of range, or a name that is taken", body = Problem),
    ),
))]
pub(crate) async fn keep_preset(
    desk: Desk,
    Body(request): Body<RulesRequest>,
) -> Result<StatusCode, Problem> {
    let mut tries = desk.tries();
    loop {
        let house = tries.next().await?;
        let mut kept = house_with(&house.house, request.rules.clone())?.rules;
        kept.name = kept.name.trim().to_owned();
        let taken = presets(&kept)
            .iter()
            .any(|preset| preset.rules.name == kept.name);
        if taken {
            let says = format!(
                "\"{}\" comes with Hummock: give your own another name",
                kept.name
            );
            return Err(vec![Refusal::new("name", says)].into());
        }
        let made = desk.store.keep_preset(house.version, &kept);
        if desk.changed(made.await)?.is_some() {
            return Ok(StatusCode::NO_CONTENT);
        }
    }
}

/// Drops a preset of the studio's own.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "drop_preset", delete, path = "/studio/presets/{name}", tag = "studio",
    params(("name" = String, Path, description = "Which")),
    responses(
        (status = 204, description = "It is gone"),
        (status = 404, description = "The studio has none of that name", body = Problem),
    ),
))]
pub(crate) async fn drop_preset(
    desk: Desk,
    NameInPath(name): NameInPath,
) -> Result<StatusCode, Problem> {
    let mut tries = desk.tries();
    loop {
        let house = tries.next().await?;
        let dropped = desk.store.drop_preset(house.version, &name);
        if desk.changed(dropped.await)?.is_some() {
            return Ok(StatusCode::NO_CONTENT);
        }
    }
}
