//! A bought mailer around sheets between boards.

use serde::Serialize;

use super::{Cushioning, Layer, Make, Making, Sides, Supplies};
use crate::{
    material::Mailer,
    part::Need,
    quantity::{Length, Stiffness},
    space::{Addition, Envelope, LayerSlot},
};

/// A mailer by its sizes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MailerBox {
    /// Inside, along the shorter side.
    #[serde(rename = "inside_width_mm")]
    pub inside_width: Length,
    /// Inside, along the longer side.
    #[serde(rename = "inside_length_mm")]
    pub inside_length: Length,
    /// Of its wall.
    #[serde(rename = "wall_mm")]
    pub wall: Length,
    /// How its wall resists bending; unknown when absent.
    #[serde(rename = "stiffness_nm")]
    pub stiffness: Option<Stiffness>,
}

/// Returns the cheapest mailer on the shelf that takes something of a size: its shorter side and its thickness
/// within the width less the slack, its longer side likewise.
///
/// Source: house rule; a mailer that is as wide as what goes in does not close.
pub(crate) fn mailer_for<'a>(supplies: &Supplies<'a>, inside: Envelope) -> Option<&'a Mailer> {
    let slack = supplies.allowances().mailer_slack;
    let (short, long) = (inside.across.min(inside.up), inside.long_side());
    supplies
        .catalogue
        .mailers
        .iter()
        .filter(|mailer| !mailer.shelf.retired)
        .filter(|mailer| {
            short + inside.through <= mailer.inside_width - slack
                && long + inside.through <= mailer.inside_length - slack
        })
        .min_by_key(|mailer| (mailer.price, mailer.inside_width))
}

impl MailerBox {
    pub(crate) fn layer(supplies: &Supplies<'_>, mailer: &Mailer, inside: Envelope) -> Layer {
        let allowances = supplies.allowances();
        let wall = mailer.wall;
        let outside = |side: Length| side + wall * 2.0;
        let (width, length) = (outside(mailer.inside_width), outside(mailer.inside_length));
        let (across, up) = if inside.across <= inside.up {
            (width, length)
        } else {
            (length, width)
        };
        supplies.layer(Making {
            slot: LayerSlot::Box,
            needs: vec![
                Need::mailer(mailer),
                Need::tape(supplies.seal_tape, width + allowances.seal_return * 2.0),
            ],
            adds: Addition::new(
                (across - inside.across) / 2.0,
                (up - inside.up) / 2.0,
                wall,
                wall,
            ),
            inside,
            minutes: allowances.mailer_minutes,
            why: "A small sheet between two boards needs no box: a stiff mailer goes as a letter does.",
            make: Make::Mailer(Self {
                inside_width: mailer.inside_width,
                inside_length: mailer.inside_length,
                wall,
                stiffness: mailer.stiffness,
            }),
            cushioning: Some(Cushioning::of_board(Sides::all(wall))),
        })
    }
}
