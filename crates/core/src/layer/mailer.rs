//! A bought mailer around sheets between boards.

use super::{Cushioning, Layer, MailerBox, Make, Making, Sides, Supplies, boxed::sealed_by};
use crate::{
    material::Mailer,
    part::Need,
    quantity::{Length, Minutes},
    space::{Addition, Envelope, LayerSlot},
};

/// Returns the cheapest mailer on the shelf that takes something of a size, or two of them pushed over it from both
/// ends: one whose wall is stiff before others, or one that is padded.
pub(crate) fn mailer_for<'a>(
    supplies: &Supplies<'a>,
    stiff: bool,
    inside: Envelope,
) -> Option<Pushed<'a>> {
    supplies
        .catalogue
        .mailers
        .iter()
        .filter(|mailer| !mailer.shelf.retired)
        .filter_map(|mailer| Pushed::over(supplies, mailer, inside))
        .min_by_key(|pushed| {
            let mailer = pushed.mailer;
            let other = mailer.stiffness.is_some() != stiff;
            (pushed.count, other, mailer.price, mailer.inside_width)
        })
}

/// A mailer over something, or two of them from both ends.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Pushed<'a> {
    mailer: &'a Mailer,
    count: u32,
    overlap: Length,
}

/// What is wrapped takes so many times as long to get into a mailer as two boards. Source: house rule.
const PUSHED_IN: f64 = 2.0;

/// Two mailers lap each other at least so far, where they are taped around.
const LEAST_OVERLAP: Length = Length::mm(100.0);

impl<'a> Pushed<'a> {
    /// Returns how a mailer goes over something of a size: its shorter side and its thickness within the width less the
    /// slack, its longer side likewise; two of them where one is too short.
    ///
    /// Source: house rule; a mailer that is as wide as what goes in does not close.
    pub(super) fn over(
        supplies: &Supplies<'_>,
        mailer: &'a Mailer,
        inside: Envelope,
    ) -> Option<Self> {
        let slack = supplies.allowances().mailer_slack;
        let needed = |side: Length| side + inside.through + slack;
        let (short, long) = (inside.across.min(inside.up), inside.long_side());
        if needed(short) > mailer.inside_width {
            return None;
        }
        // The second of two goes over the first as well.
        let walls = mailer.wall * 2.0;
        let overlap = mailer.inside_length * 2.0 - needed(long) - walls;
        if needed(short) + walls > mailer.inside_width && needed(long) > mailer.inside_length {
            return None;
        }
        if needed(long) <= mailer.inside_length {
            Some(Self {
                mailer,
                count: 1,
                overlap: Length::ZERO,
            })
        } else {
            (overlap >= LEAST_OVERLAP).then_some(Self {
                mailer,
                count: 2,
                overlap,
            })
        }
    }
}

impl MailerBox {
    pub(crate) fn layer(supplies: &Supplies<'_>, pushed: Pushed<'_>, inside: Envelope) -> Layer {
        let Pushed {
            mailer,
            count,
            overlap,
        } = pushed;
        let allowances = supplies.allowances();
        let wall = mailer.wall;
        let outside = |side: Length| side + wall * 2.0;
        let together = mailer.inside_length * f64::from(count) - overlap;
        let (width, length) = (outside(mailer.inside_width), outside(together));
        let seal = MailerBox::sealed(
            [width, length, inside.through],
            count,
            overlap,
            allowances.seal_return,
        );
        // One flap is closed while it is slid in; a lap is taped all round.
        let sealing = if count == 1 {
            Minutes::ZERO
        } else {
            let taped: Length = seal.iter().map(|strip| strip.length).sum();
            allowances.seal_minutes + allowances.seal_minutes_per_m * taped.as_m()
        };
        let (across, up) = if inside.across <= inside.up {
            (width, length)
        } else {
            (length, width)
        };
        // What is wrapped is pushed in by hand's breadths, the air pressed out behind it; two boards slide.
        let (pushes, why) = if mailer.stiffness.is_none() {
            (
                PUSHED_IN,
                "A small, thinly wrapped piece needs no box: a padded mailer costs less.",
            )
        } else {
            (
                1.0,
                "A small sheet between boards needs no box: a stiff mailer goes as a letter.",
            )
        };
        supplies.layer(Making {
            slot: LayerSlot::Box,
            needs: std::iter::once(Need::mailer(mailer).times(count))
                .chain(sealed_by(supplies, &seal))
                .collect(),
            adds: Addition::new(
                (across - inside.across) / 2.0,
                (up - inside.up) / 2.0,
                wall,
                wall,
            ),
            inside,
            minutes: allowances.mailer_minutes * (f64::from(count) * pushes) + sealing,
            why,
            make: Make::Mailer(Self {
                inside_width: mailer.inside_width,
                inside_length: together,
                count,
                overlap,
                wall,
                stiffness: mailer.stiffness,
                seal,
            }),
            cushioning: Some(Cushioning::of_board(Sides::all(wall))),
        })
    }
}
